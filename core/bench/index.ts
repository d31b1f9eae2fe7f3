export * from './flowRuns'
export * from './label'
