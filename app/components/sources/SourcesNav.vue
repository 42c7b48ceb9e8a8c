<template>
  <PlaceNav
    place="Sources"
    :entries="[
      { to: '/sources', label: 'Deliveries' },
      { to: '/sources/invoices', label: 'Invoices' },
      { to: '/sources/rates', label: 'Exchange rates' },
    ]"
  />
</template>
