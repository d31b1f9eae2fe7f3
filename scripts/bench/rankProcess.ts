import { connect } from '@ypsometer/server/db/client'
import { workParts } from '@ypsometer/server/ranking/parts'

/** A worker process of the benchmark: works at parts each time it is told to, until there are none. */
const url = process.env.DATABASE_URL ?? ''
const { db } = connect(url)
process.stdin.on('data', () => {
  void (async () => {
    // The other may still hold a part that this one waits for: tanks come after all models.
    for (let idle = 0; idle < 200;) {
      idle = (await workParts(db)) ? 0 : idle + 1
      const { rows } = await db.$client.query(`select 1 from ranking where state = 'running'`)
      if (!rows.length) break
      await new Promise((r) => setTimeout(r, 10))
    }
    process.stdout.write('done\n')
  })()
})
process.stdout.write('ready\n')
