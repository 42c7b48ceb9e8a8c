<template>
  <svg width="22" height="24" viewBox="0 0 22 24" aria-hidden="true">
    <path d="M4,2 Q11,0 18,2 Q22.5,12 18,22 Q11,24 4,22 Q-.5,12 4,2Z" fill="none" stroke="var(--ink)" stroke-width="1.6" />
    <path d="M1.9,13 Q6,11 11,13 T20.1,13 Q19.6,18.5 18,22 Q11,24 4,22 Q2.4,18.5 1.9,13Z" fill="var(--act)" />
    <path d="M2.6,7.2 Q11,5.6 19.4,7.2" stroke="var(--ink)" stroke-width="1.3" fill="none" />
  </svg>
</template>
