import { layer, medium } from '../path/tests/support'
import { moveLayer } from './move'

const FOAM = medium('Coarse foam')
/** Layers a and b lie in the low chamber, c in the high one; worked out by hand from what a person sees. */
const a = layer('a', 'low', FOAM, 20)
const b = layer('b', 'low', FOAM, 20)
const c = layer('c', 'high', FOAM, 20)
const moved = (id: string, chamberId: string, index: number) =>
  moveLayer([a, b, c], id, { chamberId, index }).map((l) => `${l.id}:${l.chamberId}`)

test.each([
  ['before another of its own chamber', 'b', 'low', 0, ['b:low', 'a:low', 'c:high']],
  ['behind the last of its own chamber', 'a', 'low', 1, ['b:low', 'a:low', 'c:high']],
  ['behind the last of another', 'a', 'high', 5, ['b:low', 'c:high', 'a:high']],
  ['before the first of another', 'b', 'high', 0, ['a:low', 'b:high', 'c:high']],
  ['back among the first', 'c', 'low', 1, ['a:low', 'c:low', 'b:low']],
  ['behind the last where others follow', 'c', 'low', 9, ['a:low', 'b:low', 'c:low']],
  ['into a chamber with nothing in it', 'a', 'empty', 0, ['b:low', 'c:high', 'a:empty']],
])('a layer is put %s', (_what, id, chamberId, index, then) => {
  expect(moved(id, chamberId, index)).toEqual(then)
})

test('nothing is lost: a layer that is not there moves nothing, what moved keeps all but its chamber', () => {
  const layers = [a, b, c]
  expect(moveLayer(layers, 'z', { chamberId: 'low', index: 0 })).toBe(layers)
  expect(moveLayer(layers, 'a', { chamberId: 'high', index: 0 })[1]).toEqual({ ...a, chamberId: 'high' })
})
