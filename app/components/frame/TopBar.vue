<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import ChevronDown from '@lucide/vue/dist/esm/icons/chevron-down.mjs'
import Search from '@lucide/vue/dist/esm/icons/search.mjs'
import { onKeyStroke } from '@vueuse/core'
import { useMe } from '~/stores/me'

defineProps<{ places: { to: string; name: string }[]; finds: boolean }>()

const store = useMe()
const router = useRouter()
const route = useRoute()
const theme = useTheme()
const find = ref('')
const findField = useTemplateRef<HTMLInputElement>('findField')

onKeyStroke('/', (event) => {
  const target = event.target as HTMLElement
  if (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) return
  event.preventDefault()
  findField.value?.focus()
})

function goFind() {
  void router.push({ path: '/clients', query: find.value.trim() ? { q: find.value.trim() } : {} })
}

function isHere(to: string): boolean {
  return to === '/' ? route.path === '/' : route.path.startsWith(to)
}

async function signOut() {
  await store.signOut()
  await router.push('/sign-in')
}
</script>

<template>
  <header class="no-print flex h-13 shrink-0 items-center gap-4 border-b border-rule bg-sheet px-4 sm:px-6 lg:gap-6">
    <NuxtLink to="/" class="flex items-center gap-2 font-bold whitespace-nowrap">
      <ProductMark class="size-6" />
      <span class="text-lg max-sm:sr-only">Oak Pinch</span>
    </NuxtLink>
    <nav aria-label="Places" class="hidden h-full gap-4 sm:flex lg:gap-6">
      <NuxtLink
        v-for="place in places"
        :key="place.to"
        :to="place.to"
        :aria-current="isHere(place.to) ? 'page' : undefined"
        class="flex h-full items-center border-b-3 border-transparent pt-[3px] aria-[current]:border-ink aria-[current]:stroke-bold"
      >
        {{ place.name }}
      </NuxtLink>
    </nav>
    <form v-if="finds" class="relative ml-auto w-full max-w-56" role="search" @submit.prevent="goFind">
      <Search class="pointer-events-none absolute top-2.5 left-2.5 size-4 text-faded" aria-hidden="true" />
      <input
        ref="findField"
        v-model="find"
        type="search"
        aria-label="Find a client"
        placeholder="Find a client   /"
        class="h-9 w-full rounded border border-rule bg-paper pr-2 pl-8 placeholder:text-faded"
      />
    </form>
    <Menu as="div" class="relative" :class="{ 'ml-auto': !finds }">
      <MenuButton class="flex items-center gap-1 whitespace-nowrap" data-account>
        {{ store.me?.staff.name.split(' ')[0] }}<span class="sr-only">, your account</span>
        <ChevronDown class="size-4" aria-hidden="true" />
      </MenuButton>
      <MenuItems class="absolute right-0 z-20 mt-2 w-56 rounded border border-ink bg-sheet py-1">
        <div class="px-4 py-2 text-sm text-faded">{{ store.me?.staff.name }}, {{ store.me?.studio.name }}</div>
        <MenuItem v-slot="{ active }">
          <button
            class="block w-full px-4 py-2 text-left"
            :class="{ 'bg-wash': active }"
            @click="theme = theme === 'dim' ? 'light' : 'dim'"
          >
            {{ theme === 'dim' ? 'Light, for bright rooms' : 'Dim, for dark rooms' }}
          </button>
        </MenuItem>
        <MenuItem v-slot="{ active }">
          <NuxtLink to="/studio" class="block px-4 py-2" :class="{ 'bg-wash': active }">Units and studio</NuxtLink>
        </MenuItem>
        <MenuItem v-slot="{ active }">
          <NuxtLink to="/studio/account" class="block px-4 py-2" :class="{ 'bg-wash': active }"
            >Password and devices</NuxtLink
          >
        </MenuItem>
        <MenuItem v-if="store.me?.hasPin" v-slot="{ active }">
          <button class="block w-full px-4 py-2 text-left" :class="{ 'bg-wash': active }" @click="store.lock">
            Lock this device
          </button>
        </MenuItem>
        <MenuItem v-slot="{ active }">
          <button class="block w-full px-4 py-2 text-left" :class="{ 'bg-wash': active }" @click="signOut">
            Sign out
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
  </header>
</template>
