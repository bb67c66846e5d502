import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { ROOT } from './prepare.mjs'

/** Prints what the measuring screen loads of the core, gzip, and what each file of equations adds when it is asked for. */
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
  const asked = /^(jackson|durnin|sloan|athletes|evans|peterson|slaughter|nine|navy|one-site|weltman|indexes)/
  const base = sizes.filter(([name]) => !asked.test(name))
  const total = base.reduce((sum, [, size]) => sum + size, 0)
  console.log(`core of the measuring screen   ${(total / 1024).toFixed(1)} kB gzip (target 40)`)
  console.log(
    `equations, loaded when needed  ${sizes
      .filter(([name]) => asked.test(name))
      .map(([name, size]) => `${name.replace('.js', '')} ${(size / 1024).toFixed(1)}`)
      .join(', ')} kB gzip`,
  )
}
