<template>
  <PlaceNav
    place="Estimates"
    :entries="[
      { to: '/estimates', label: 'Estimates' },
      { to: '/estimates/finder', label: 'Finder' },
      { to: '/estimates/patterns', label: 'Patterns' },
      { to: '/estimates/own-charges', label: 'Own charges' },
      { to: '/estimates/rate-cards', label: 'Rate cards' },
    ]"
  />
</template>
