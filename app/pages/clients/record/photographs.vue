<script setup lang="ts">
import type { Alignment, Photo, Pose } from '#shared/schemas/photo'
import { v7 as uuid } from 'uuid'
import { photos as calls } from '~/calls'

const { followed } = useFollowed()
const { history, client, ends, fromIndex, toIndex } = followed
const { problem, busy, tell } = useTelling()
const photos = computed(() => history.value?.photos ?? [])
const taken = (change: Photo[]) => followed.take({ photos: change })

function align(photo: Photo, alignment: Alignment) {
  return tell(async () => {
    const changed = await calls.align(photo.id, alignment)
    taken(photos.value.map((one) => (one.id === changed.id ? changed : one)))
  })
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
