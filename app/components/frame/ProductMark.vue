<template>
  <svg viewBox="0 0 32 32" fill="none" stroke="currentColor" stroke-width="3" stroke-linecap="round" aria-hidden="true">
    <path d="M16 3v7" />
    <path d="M13 11C5 14 5 24 12 29M19 11c8 3 8 13 1 18" />
    <circle cx="16" cy="11" r="3" class="fill-fat" stroke="none" />
  </svg>
</template>
