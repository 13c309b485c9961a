import { type ChildProcess, fork } from 'node:child_process'
import { join, resolve } from 'node:path'
import pLimit from 'p-limit'
import type { Seeds } from '@core/site/palette'
import type { Configuration } from '../../platform/configuration'
import type { Drawn, PictureAnswer, PictureFacts, PictureTask } from './tasks'

/** A picture could not be read or drawn; `reason` is what the program behind it said. */
export class PictureFailure extends Error {
  constructor(readonly reason: string) {
    super(reason)
  }
}

const limitMs = 20_000
const mostAtOnce = 2
const turns = pLimit(mostAtOnce)
/** Programs that have nothing to do. */
const idle: ChildProcess[] = []

type Answer<T extends PictureTask> = T['kind'] extends 'size'
  ? PictureFacts
  : T['kind'] extends 'seeds'
    ? Seeds
    : Drawn[]

/** Has a task done by a program of its own, which is ended where it takes longer than twenty seconds. Throws PictureFailure. */
export async function draw<T extends PictureTask>(
  task: T,
  configuration: Pick<Configuration, 'serverDir'>,
): Promise<Answer<T>> {
  const answer = await turns(() => asked(idle.pop() ?? start(configuration), task))
  if ('failure' in answer) throw new PictureFailure(answer.failure)
  return ('size' in answer ? answer.size : 'seeds' in answer ? answer.seeds : answer.drawn) as Answer<T>
}

function start({ serverDir }: Pick<Configuration, 'serverDir'>): ChildProcess {
  const child = fork(join(resolve(serverDir), 'pictureWorker.js'), [], {
    serialization: 'advanced',
    execArgv: ['--max-old-space-size=256'],
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  })
  child.on('error', () => undefined)
  child.once('exit', () => {
    const at = idle.indexOf(child)
    if (at >= 0) idle.splice(at, 1)
  })
  return child
}

/** One that waits for work keeps nobody alive. */
function rest(child: ChildProcess): void {
  idle.push(child)
  child.unref()
  child.channel?.unref()
}

function asked(child: ChildProcess, task: PictureTask): Promise<PictureAnswer> {
  return new Promise(done => {
    child.ref()
    child.channel?.ref()
    const end = (answer: PictureAnswer): void => {
      clearTimeout(timer)
      child.off('message', answered).off('exit', ended)
      done(answer)
    }
    const answered = (answer: unknown): void => {
      rest(child)
      end(answer as PictureAnswer)
    }
    const ended = (_code: number | null, signal: string | null): void =>
      end({ failure: signal ? `It took longer than ${limitMs / 1000} s.` : 'The program ended before it was done.' })
    const timer = setTimeout(() => child.kill('SIGKILL'), limitMs)
    child.once('message', answered).once('exit', ended)
    child.send(task, error => {
      if (error) child.kill('SIGKILL')
    })
  })
}
