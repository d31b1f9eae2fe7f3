// Property tests draw the same cases every time, so that a red build can be repeated; FC_SEED=random looks further.
const fc = require('fast-check')
const wanted = process.env.FC_SEED
if (wanted !== 'random') fc.configureGlobal({ seed: Number(wanted ?? 4680) })
