import { execFile } from 'node:child_process'
import { promisify } from 'node:util'

export const seconds = 3
const rounds = 5
const connections = 20
const run = promisify(execFile)

export interface Load {
  url: string
  headers?: Record<string, string>
  method?: 'HEAD'
  /** A script of wrk that makes the requests, with what it is told. */
  script?: readonly string[]
}

/** Requests a second over loopback for three seconds: by wrk, and for HEAD, which that cannot, by ab. */
export async function requestsPerSecond({ url, headers = {}, method, script }: Load): Promise<number> {
  const heads = Object.entries(headers).flatMap(([name, value]) => ['-H', `${name}: ${value}`])
  const [program, parameters] = method
    ? (['ab', ['-i', '-k', '-q', '-n1000000', `-t${seconds}`, `-c${connections}`]] as const)
    : (['wrk', ['-t1', '--timeout', '10s', `-c${connections}`, `-d${seconds}s`]] as const)
  const scripted = script ? ['-s', script[0]!, url, '--', ...script.slice(1)] : [url]
  const { stdout } = await run(program, [...parameters, ...heads, ...scripted])
  if (/Non-2xx|Socket errors/.test(stdout)) throw new Error(`${url} did not answer as it should: ${stdout}`)
  return Number(/Requests(?:\/sec| per second):\s+([\d.]+)/.exec(stdout)![1])
}

/** Prints the requests a second of one against another, the median of five turns about. */
export async function compare(name: string, one: Load, other: Load): Promise<void> {
  const pairs: [number, number][] = []
  await requestsPerSecond(one)
  for (let n = 0; n < rounds; n++) pairs.push([await requestsPerSecond(one), await requestsPerSecond(other)])
  const [ours, theirs] = pairs.sort(([a, b], [c, d]) => a / b - c / d)[Math.floor(rounds / 2)]!
  console.log(`${name}: ${(ours / theirs).toFixed(2)} (${Math.round(ours)} : ${Math.round(theirs)} a second)`)
}
