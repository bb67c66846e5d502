<script setup lang="ts">
import type { WorthwhileInput } from '#shared/schemas/following'
import { clients } from '~/calls'
import { useMe } from '~/stores/me'

const store = useMe()
const { followed } = useFollowed()
const { clientId, history, record, between, now, span, noises, share, assessor, neutral } = followed

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
    :share="share"
    :learnt="history?.parts ?? null"
    :assessor="assessor"
    :units="store.units"
    :neutral="neutral"
  >
    <p v-if="history?.studies?.length" class="text-[15px]" data-studies>
      Counted from the bench:
      <template v-for="(one, i) in history.studies" :key="one.id"
        ><NuxtLink :to="`/bench/studies/${one.id}`" class="underline underline-offset-4">{{ one.name }}</NuxtLink> ({{
          one.kind === 'repeat' ? 'repeats' : 'side by side'
        }}, {{ sayDay(one.day) }}){{ i < history.studies.length - 1 ? ', ' : '.' }}
      </template>
    </p>
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
