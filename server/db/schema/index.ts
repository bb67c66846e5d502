export * from './people'
export * from './calipers'
export * from './measuring'
