<script setup lang="ts">
import { useMe } from '~/stores/me'

const store = useMe()
const { followed } = useFollowed()
const { record, history, neutral } = followed
</script>

<template>
  <ScrollTable v-if="record" label="Check-ins" class="px-4 py-4 sm:px-6">
    <CheckinTable
      :record="record"
      :voided="history?.voided ?? []"
      :brought="history?.brought ?? []"
      :units="store.units"
      :neutral="neutral"
      @voided="followed.take"
    />
  </ScrollTable>
</template>
