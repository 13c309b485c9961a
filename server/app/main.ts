import { runProcess } from './runProcess'
import { start } from './start'

await runProcess(start)
