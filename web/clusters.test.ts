import { withoutCircles } from './clusters'

const cluster = (name: string, ...imports: string[]) => ({
  modules: [name],
  bytes: 1,
  views: new Set([name]),
  files: new Set([name]),
  imports: new Set(imports),
})
const named = (list: ReturnType<typeof withoutCircles>) =>
  list.map((c) => [...c.modules].sort().join('+')).sort()

test('files that import one another become one, however long the way round; others stay apart', () => {
  const [a, b, c, d] = [cluster('a', 'b'), cluster('b', 'c'), cluster('c', 'a', 'vendor'), cluster('d', 'a')]
  expect(named(withoutCircles([a, b, c, d]))).toEqual(['a+b+c', 'd'])
  expect(named(withoutCircles([a, b, cluster('c')]))).toEqual(['a', 'b', 'c'])
  const [one] = withoutCircles([a, b, c])
  expect([one?.bytes, [...(one?.views ?? [])].sort()]).toEqual([3, ['a', 'b', 'c']])
})
