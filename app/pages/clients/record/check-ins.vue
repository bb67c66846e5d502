<script setup lang="ts">
import { useMe } from '~/stores/me'

const store = useMe()
const { followed } = useFollowed()
const { record, history, span, neutral } = followed
</script>

<template>
  <ScrollTable v-if="record" label="Check-ins" class="px-4 py-4 sm:px-6">
    <CheckinTable
      :record="record"
      :voided="history?.voided ?? []"
      :brought="history?.brought ?? []"
      :by-week="span?.byWeek ?? false"
      :units="store.units"
      :neutral="neutral"
      @voided="followed.take"
    />
  </ScrollTable>
</template>
