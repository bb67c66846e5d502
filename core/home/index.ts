export * from './girths'
export * from './week'
export * from './slip'
