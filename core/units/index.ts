export * from './mass'
export * from './length'
export * from './parse'
export * from './format'
