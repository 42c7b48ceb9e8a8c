<template>
  <PlaceNav
    place="Sources"
    :entries="[
      { to: '/sources', label: 'Deliveries' },
      { to: '/sources/connections', label: 'Connections' },
      { to: '/sources/runs', label: 'Runs by itself' },
      { to: '/sources/invoices', label: 'Invoices' },
      { to: '/sources/rates', label: 'Exchange rates' },
    ]"
  />
</template>
