<script setup lang="ts">
useHead({ title: 'Label reader, Oak Pinch' })
</script>

<template>
  <div class="px-4 py-4 sm:px-6">
    <EnergyOfferGate><LabelReader /></EnergyOfferGate>
  </div>
</template>
