import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { ROOT } from './prepare.mjs'

/** Prints what the measuring screen loads of the core, gzip, and what the equations add beside it. */
export async function measuringBundle() {
  const { build } = await import('esbuild')
  const { outputFiles } = await build({
    entryPoints: [join(ROOT, 'bench/measuring-core.ts')],
    bundle: true,
    splitting: true,
    minify: true,
    format: 'esm',
    write: false,
    outdir: '.cache/measuring',
    chunkNames: '[name]-[hash]',
  })
  const sizes = outputFiles.map(({ path, contents }) => [
    path
      .split('/')
      .at(-1)
      .replace(/-[A-Z0-9]{8}\.js$/, '.js'),
    gzipSync(contents).length,
  ])
  const kB = (chosen) => (chosen.reduce((sum, [, size]) => sum + size, 0) / 1024).toFixed(1)
  const asked = ([name]) => name.startsWith('registry')
  console.log(`core of the measuring screen   ${kB(sizes.filter((file) => !asked(file)))} kB gzip (target 40)`)
  console.log(`equations, loaded beside       ${kB(sizes.filter(asked))} kB gzip`)
}
