/**
 * A lockfile with the address of every package on a registry. Ours holds none (they differ from place to place), and
 * without one `npm ci` asks the registry about every version of each package first: half of all it does.
 * @param {{ packages: Record<string, { name?: string, version?: string, resolved?: string, inBundle?: boolean, link?: boolean }> }} lock
 * @param {string} registry such as https://registry.example/npm
 * @example `node_modules/@tanstack/vue-form` 1.33.5 is at https://registry.example/npm/@tanstack/vue-form/-/vue-form-1.33.5.tgz
 */
export function addressedLock(lock, registry) {
  const packages = Object.entries(lock.packages).map(([path, one]) => {
    // What came within another package's file, and the project itself, is fetched from nowhere.
    if (path === '' || one.inBundle || one.link || one.resolved || !one.version) return [path, one]
    const name = one.name ?? path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length)
    const file = `${name.slice(name.lastIndexOf('/') + 1)}-${one.version}.tgz`
    return [path, { ...one, resolved: `${registry.replace(/\/+$/, '')}/${name}/-/${file}` }]
  })
  return { ...lock, packages: Object.fromEntries(packages) }
}
