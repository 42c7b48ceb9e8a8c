<template>
  <PlaceNav
    place="Spend"
    :entries="[
      { to: '/spend', label: 'Sentence' },
      { to: '/spend/saved', label: 'Saved' },
      { to: '/spend/tags', label: 'Tags' },
      { to: '/spend/commitments', label: 'Commitments' },
      { to: '/spend/codes', label: 'SKU codes' },
    ]"
  />
</template>
