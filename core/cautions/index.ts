export * from './flags'
export * from './cautions'
