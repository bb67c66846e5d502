<template>
  <main class="flex min-h-dvh w-full flex-col px-[3vw] py-[3vh]">
    <slot />
  </main>
</template>
