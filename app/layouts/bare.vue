<template>
  <main class="mx-auto grid min-h-dvh w-full max-w-md content-center gap-6 p-6">
    <div class="flex items-center gap-3">
      <ProductMark class="size-10" />
      <span class="text-2xl font-bold">Oak Pinch</span>
    </div>
    <slot />
  </main>
</template>
