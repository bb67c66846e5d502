export * from './flags'
export * from './cautions'
export * from './person'
