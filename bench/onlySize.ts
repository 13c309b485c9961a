import { benchSize } from './size'

await benchSize()
