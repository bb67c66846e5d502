export * from './random'
export * from './assessor'
export * from './client'
export * from './devices'
