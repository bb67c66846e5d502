<template>
  <main class="mx-auto flex min-h-dvh w-full max-w-[30rem] flex-col px-5 py-4">
    <slot />
  </main>
</template>
