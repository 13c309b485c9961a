import { fork } from 'node:child_process'
import { join, resolve } from 'node:path'
import type { Configuration } from '../configuration'
import type { Drawn, PictureAnswer, PictureTask, Size } from './tasks'

/** A picture could not be read or drawn; `reason` is what the program behind it said. */
export class PictureFailure extends Error {
  constructor(readonly reason: string) {
    super(reason)
  }
}

const limitMs = 20_000
const mostAtOnce = 2
let running = 0
const line: (() => void)[] = []

type Answer<T extends PictureTask> = T['kind'] extends 'size' ? Size : Drawn[]

/** Has a task done by a program of its own, which is ended after twenty seconds. Throws PictureFailure. */
export async function draw<T extends PictureTask>(task: T, configuration: Pick<Configuration, 'serverDir'>): Promise<Answer<T>> {
  if (running >= mostAtOnce) await new Promise<void>(go => line.push(go))
  else running++
  try {
    const answer = await asked(task, configuration)
    if ('failure' in answer) throw new PictureFailure(answer.failure)
    return ('size' in answer ? answer.size : answer.drawn) as Answer<T>
  } finally {
    const next = line.shift()
    if (next) next()
    else running--
  }
}

function asked(task: PictureTask, { serverDir }: Pick<Configuration, 'serverDir'>): Promise<PictureAnswer> {
  return new Promise(done => {
    const child = fork(join(resolve(serverDir), 'pictureWorker.js'), [], { serialization: 'advanced', execArgv: ['--max-old-space-size=256'], stdio: ['ignore', 'ignore', 'ignore', 'ipc'] })
    const timer = setTimeout(() => child.kill('SIGKILL'), limitMs)
    const end = (answer: PictureAnswer): void => {
      clearTimeout(timer)
      done(answer)
    }
    child.once('message', answer => end(answer as PictureAnswer))
    child.on('error', error => end({ failure: error.message }))
    child.once('exit', (_code, signal) => end({ failure: signal ? `It took longer than ${limitMs / 1000} s.` : 'The program ended before it was done.' }))
    child.send(task, error => { if (error) child.kill('SIGKILL') })
  })
}
