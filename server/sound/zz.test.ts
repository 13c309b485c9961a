import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { it } from 'vitest'
import { firstRecipe } from '@core/audio/recipe'
import { runSound } from './run'
const run = { signal: new AbortController().signal, progress: () => undefined }
it('x', async () => {
  const path = '/tmp/fin/hour.mp3'
  if (!existsSync(path)) spawnSync('ffmpeg', ['-v','error','-y','-stream_loop','-1','-i','demo/sounds/br-31.mp3','-f','lavfi','-i','anoisesrc=c=pink:a=0.02:r=44100','-f','lavfi','-i','anoisesrc=c=pink:a=0.02:r=44100:s=7','-filter_complex','[0:a]aformat=sample_rates=44100:channel_layouts=stereo[v];[1:a][2:a]join=inputs=2:channel_layout=stereo[n];[v][n]amix=inputs=2:normalize=0[out]','-map','[out]','-t','3600','-b:a','128k',path])
  const t = async (f: () => unknown) => { const a = performance.now(); const r = await f(); return [(performance.now()-a)/1000, r] as const }
  const [d] = await t(() => spawnSync('ffmpeg', ['-v','error','-i',path,'-f','null','-']))
  const [m, measured] = await t(() => runSound({ kind: 'measure', source: { path, sampleRateHz: 44100, channels: 2, junkBytes: 0 }, expectedMs: 3600000 }, run, { serverDir: 'dist/server' }))
  console.log('RESULT decode', d.toFixed(1), 'measure', m.toFixed(1))
  for (const [encoding, enc] of [['speech and music', ['-c:a','libmp3lame','-b:a','128k','/tmp/fin/o.mp3']], ['m4a', ['-c:a','aac','-b:a','128k','/tmp/fin/o.m4a']]] as const) {
    const [ref] = await t(() => spawnSync('ffmpeg', ['-v','error','-y','-i',path,...enc]))
    const [ours, r] = await t(() => runSound({ kind: 'finish', source: { path, junkBytes: 0, channels: 2 }, measurement: (measured as any).measurement, recipe: { ...firstRecipe, encoding }, folder: '/tmp/fin' }, run, { serverDir: 'dist/server' }))
    console.log('RESULT', encoding, 'ref', ref.toFixed(1), 'ours', ours.toFixed(1), (ours/ref).toFixed(2), (r as any).measurement.integratedLufs.toFixed(2), (r as any).measurement.truePeakDbtp.toFixed(2))
  }
}, 3e6)
