export * from './ends'
export * from './span'
export * from './words'
export * from './summary'
