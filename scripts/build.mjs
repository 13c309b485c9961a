import { needBuild } from './setup/build.mjs'
import { main } from './setup/halt.mjs'
import { needPackages } from './setup/packages.mjs'

await main(async () => {
  needPackages()
  await needBuild()
})
