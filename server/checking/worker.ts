import { parentPort, workerData } from 'node:worker_threads'
import { type FeedTask, workOn } from './tasks'

parentPort!.postMessage(workOn(workerData as FeedTask))
