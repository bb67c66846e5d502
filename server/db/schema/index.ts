export * from './people'
export * from './calipers'
export * from './measuring'
export * from './following'
