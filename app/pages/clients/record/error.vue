<script setup lang="ts">
import type { WorthwhileInput } from '#shared/schemas/following'
import { clients } from '~/calls'
import { useMe } from '~/stores/me'

const store = useMe()
const { followed } = useFollowed()
const { clientId, history, record, between, now, span, noises, assessor, neutral } = followed

/** The client's own smallest change, or the studio's again. */
async function setWorthwhile(own: WorthwhileInput) {
  followed.take({ worthwhile: await clients.setWorthwhile(clientId, own) })
}
</script>

<template>
  <ErrorPane
    v-if="record && now"
    :between="between"
    :now="now"
    :span="span"
    :errors="record.errors"
    :noises="noises"
    :assessor="assessor"
    :units="store.units"
    :neutral="neutral"
  >
    <WorthwhileField
      v-if="history?.worthwhile"
      class="border-t border-rule pt-4"
      :fat-kg="history.worthwhile.own.fatKg"
      :sum-percent="history.worthwhile.own.sumPercent"
      :units="store.units"
      :hint="`For this client; left empty, the studio’s counts.`"
      :save="setWorthwhile"
    />
  </ErrorPane>
</template>
