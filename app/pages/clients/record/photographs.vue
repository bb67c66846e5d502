<script setup lang="ts">
import type { Alignment, Photo, Pose } from '#shared/schemas/photo'
import { v7 as uuid } from 'uuid'
import { photos as calls } from '~/calls'
import { newestOnly } from '~/newest'

const { followed } = useFollowed()
const { history, client, ends, fromIndex, toIndex } = followed
const { problem, busy, tell } = useTelling()
const photos = computed(() => history.value?.photos ?? [])
const taken = (change: Photo[]) => followed.take({ photos: change })

const keepAlignment = newestOnly(calls.align)

/** On the page at once: an answer that comes while the next step is pressed must not put the photograph back. */
function align(photo: Photo, alignment: Alignment) {
  taken(photos.value.map((one) => (one.id === photo.id ? { ...one, alignment } : one)))
  return tell(() => keepAlignment(photo.id, alignment))
}

function keep(pose: Pose, picture: Blob, conditions: Record<string, string>) {
  const checkinId = ends.value[toIndex.value]?.record.id
  return tell(async () => {
    if (!checkinId) return
    const facts = { id: uuid(), pose, takenAt: new Date().toISOString(), conditions }
    taken([...photos.value, await calls.add(checkinId, facts, picture)])
  })
}

function remove(photo: Photo) {
  return tell(async () => {
    await calls.remove(photo.id)
    taken(photos.value.filter(({ id }) => id !== photo.id))
  })
}
</script>

<template>
  <PhotoPane
    v-if="client"
    v-model:problem="problem"
    :client="client"
    :photos="photos"
    :ends="ends"
    :from="fromIndex"
    :to="toIndex"
    :busy="busy"
    :keep="keep"
    :remove="remove"
    @align="align"
    @beside="(place) => followed.setJaws(place, toIndex)"
  />
</template>
