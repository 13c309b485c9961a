import { parentPort } from 'node:worker_threads'
import { NoTranscript } from '@core/transcript/cue'
import { type TextTask, workOn } from './tasks'

parentPort!.on('message', (task: TextTask) => {
  try {
    parentPort!.postMessage({ answer: workOn(task) })
  } catch (error) {
    if (error instanceof NoTranscript) parentPort!.postMessage({ noTranscript: error.message })
    else throw error
  }
})
