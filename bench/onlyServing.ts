import { benchServing } from './serving'

await benchServing()
