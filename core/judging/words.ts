export { SCHOOL_WORDS } from '../tanks/schools'
