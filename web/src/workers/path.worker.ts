import { expose } from 'comlink'
import { pathWork } from './pathWork'

expose(pathWork())
