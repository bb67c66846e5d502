export * from './site'
export * from './folds'
export * from './protocols'
