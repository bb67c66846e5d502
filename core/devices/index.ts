export * from './lines'
export * from './block'
