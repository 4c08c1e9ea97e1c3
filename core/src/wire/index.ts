/** What goes between page and server: the shapes of answers, and of requests with their schemas. */
export * from './answers'
export * from './requests'
