import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { ensureInstalled, fingerprint, isCurrent, ROOT, setCurrent } from './prepare.mjs'

/**
 * Bundles a TypeScript command for Node when its sources have changed, and gives the path of the result.
 * @param {string} entry path in the project, such as 'cli/estimate.ts'
 */
export async function bundled(entry) {
  ensureInstalled()
  const name = entry.replace(/[/.]/g, '-')
  const outfile = join(ROOT, '.cache/bundles', `${name}.mjs`)
  const print = fingerprint(['core', 'shared', 'exchange', 'server', 'cli', 'bench', 'package-lock.json'])
  if (isCurrent(`bundle-${name}`, print)) return outfile
  const { build } = await import('esbuild')
  mkdirSync(join(ROOT, '.cache/bundles'), { recursive: true })
  await build({
    entryPoints: [join(ROOT, entry)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    // Brings files of its own that a bundle would lose.
    external: ['@electric-sql/pglite', 'pg-native'],
    // What is CommonJS inside asks for `require` and where it stands.
    banner: {
      js: "import { createRequire } from 'node:module'; import { fileURLToPath as toPath } from 'node:url'; const require = createRequire(import.meta.url); const __filename = toPath(import.meta.url); const __dirname = toPath(new URL('.', import.meta.url));",
    },
    logLevel: 'warning',
  })
  setCurrent(`bundle-${name}`, print)
  return outfile
}
