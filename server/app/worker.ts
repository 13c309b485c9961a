import { runProcess } from './runProcess'
import { startWorker } from './start'

await runProcess(startWorker)
