export * from './circuit'
export * from './dutyUncertainty'
export * from './sensitivity'
