import { spawn, spawnSync } from 'node:child_process'

/** Runs ffmpeg to its end; answers how long that took, and the last of what it said. */
export function ffmpeg(parameters: string[]): Promise<{ seconds: number; said: string }> {
  const from = performance.now()
  return new Promise((resolve, reject) => {
    const child = spawn('ffmpeg', ['-nostdin', '-nostats', '-hide_banner', '-y', ...parameters], {
      stdio: ['ignore', 'ignore', 'pipe'],
    })
    let said = ''
    child.stderr.on('data', (words: Buffer) => {
      said = `${said}${words.toString()}`.slice(-8000)
    })
    child.once('error', reject)
    child.once('close', code =>
      code === 0 ? resolve({ seconds: (performance.now() - from) / 1000, said }) : reject(new Error(said)),
    )
  })
}

export async function timed<T>(act: () => Promise<T>): Promise<{ seconds: number; answer: T }> {
  const from = performance.now()
  const answer = await act()
  return { seconds: (performance.now() - from) / 1000, answer }
}

/** The largest resident memory of this process and its children while something runs, in MB. */
export async function withMemory<T>(act: () => Promise<T>): Promise<{ megabytes: number; answer: T }> {
  const read = (): number => {
    const { stdout } = spawnSync('ps', ['-o', 'rss=', '--pid', String(process.pid), '--ppid', String(process.pid)], {
      encoding: 'utf8',
    })
    return (
      stdout
        .trim()
        .split('\n')
        .reduce((sum, line) => sum + Number(line), 0) / 1000
    )
  }
  const before = read()
  let most = before
  const timer = setInterval(() => {
    most = Math.max(most, read())
  }, 250)
  try {
    return { answer: await act(), megabytes: most - before }
  } finally {
    clearInterval(timer)
  }
}

/** Stereo sound with something in it: the demo's speech over quiet noise, a little different on each side. */
export async function makeStereo(path: string, length: number): Promise<void> {
  await ffmpeg([
    '-stream_loop',
    '-1',
    '-i',
    'demo/sounds/br-31.mp3',
    '-f',
    'lavfi',
    '-i',
    'anoisesrc=c=pink:a=0.02:r=44100',
    '-f',
    'lavfi',
    '-i',
    'anoisesrc=c=pink:a=0.02:r=44100:s=7',
    '-filter_complex',
    '[0:a]aformat=sample_rates=44100:channel_layouts=stereo[v];[1:a][2:a]join=inputs=2:channel_layout=stereo[n];[v][n]amix=inputs=2:normalize=0[out]',
    '-map',
    '[out]',
    '-t',
    String(length),
    '-b:a',
    '128k',
    '-map_metadata',
    '-1',
    path,
  ])
}
