import { errorMessage } from '../../api/errorMessage'
import { zodResolver } from '@hookform/resolvers/zod'
import { FilterKind } from '@ypsometer/contract'
import { claimDimension, claimProblem, doubt } from '@ypsometer/core/judging/plausible'
import type { ClaimQuantity } from '@ypsometer/core/trials/records'
import { sentenceText } from '@ypsometer/core/figures/figure'
import { parseQuantity } from '@ypsometer/core/units/parse'
import { X } from 'lucide-react'
import { IconButton } from '../../frame/IconButton'
import { useEffect, useRef, useState } from 'react'
import { useForm, type FieldErrors, type UseFormRegister } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { z } from 'zod'
import { createRow } from '../../api/rows'
import { readDraft, writeDraft } from '../../fields/drafts'
import { units } from '../../settings/settings'
import { KIND_OPTIONS } from '../../words'

const LABEL: readonly (readonly [ClaimQuantity, string, string])[] = [
  ['rated-flow', 'Rated flow', '1000 L/h'],
  ['max-head', 'Maximum head', '1.8 m'],
  ['power', 'Power', '15 W'],
  ['tank-min', 'Label’s tank size: from', '60 L'],
  ['tank-max', 'to', '300 L'],
]

const Form = z.object({
  maker: z.string().trim().min(1, 'Enter the maker.').max(120, 'At most 120 characters.'),
  name: z.string().trim().min(1, 'Enter the model.').max(120, 'At most 120 characters.'),
  kind: FilterKind,
  figures: z.record(z.string(), z.string()),
})
type FormValues = z.infer<typeof Form>
const DRAFT = 'new-model'

const saved = (): Partial<FormValues> => {
  try {
    return JSON.parse(readDraft(DRAFT) ?? '{}') as Partial<FormValues>
  } catch {
    return {}
  }
}

/** A model from its label: maker, model, kind and the printed figures. What is typed survives a closed page. */
export default function NewModel({ onClose }: { readonly onClose: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null)
  const navigate = useNavigate()
  const system = units.use()
  const [asked, setAsked] = useState<Record<string, string>>({})
  const form = useForm<FormValues>({
    resolver: zodResolver(Form),
    defaultValues: { maker: '', name: '', kind: 'canister', figures: {}, ...saved() },
  })
  const { register, handleSubmit, formState, setError, watch, getValues } = form
  const { errors } = formState
  useEffect(() => dialog.current?.showModal(), [])
  useEffect(() => {
    const subscription = watch((values) => writeDraft(DRAFT, JSON.stringify(values)))
    return () => subscription.unsubscribe()
  }, [watch])

  const submit = handleSubmit((values) => {
    const claims: { quantity: ClaimQuantity; value: number; typed: string }[] = []
    const questions: Record<string, string> = {}
    let bad = false
    for (const [quantity, label] of LABEL) {
      const text = values.figures[quantity]?.trim()
      if (!text) continue
      try {
        const { si } = parseQuantity(text, { dimension: claimDimension(quantity), system, field: label })
        const wrong = claimProblem(quantity, si)
        if (wrong) {
          bad = true
          setError(`figures.${quantity}`, { message: sentenceText(wrong, system) })
          continue
        }
        const question = doubt(quantity, si, values.kind)
        if (question && asked[quantity] !== text) questions[quantity] = sentenceText(question, system)
        claims.push({ quantity, value: si, typed: text })
      } catch (error) {
        bad = true
        setError(`figures.${quantity}`, { message: errorMessage(error) })
      }
    }
    const value = (q: ClaimQuantity): number | undefined => claims.find((c) => c.quantity === q)?.value
    const from = value('tank-min')
    const to = value('tank-max')
    if (from !== undefined && to !== undefined && from > to) {
      bad = true
      setError('figures.tank-min', { message: '“From” is larger than “to”. Swap them.' })
    }
    if (bad) return
    if (Object.keys(questions).length) {
      for (const [quantity, message] of Object.entries(questions))
        setError(`figures.${quantity}`, { type: 'ask', message })
      setAsked((old) => ({
        ...old,
        ...Object.fromEntries(Object.keys(questions).map((q) => [q, getValues(`figures.${q}`).trim()])),
      }))
      return
    }
    const modelId = createRow('models', {
      maker: values.maker.trim(),
      name: values.name.trim(),
      kind: values.kind,
    })
    for (const c of claims)
      createRow('claims', {
        modelId,
        quantity: c.quantity,
        value: c.value,
        printedOn: 'box',
        typed: { value: c.typed },
      })
    writeDraft(DRAFT, null)
    void navigate(`/models/${modelId}/claims`)
  })

  const asking = Object.values(errors.figures ?? {}).some((e) => e?.type === 'ask')
  return (
    <dialog
      ref={dialog}
      className="bg-base-100 text-base-content border-base-content m-auto w-[34rem] max-w-[calc(100vw-1.5rem)] border p-6 shadow-xl backdrop:bg-black/40"
      aria-labelledby="new-title"
      onClose={onClose}
    >
      <form onSubmit={(e) => void submit(e)} noValidate>
        <div className="flex justify-between">
          <h2 id="new-title">Add a filter from its label</h2>
          <IconButton label="Save draft and close" icon={X} onClick={() => dialog.current?.close()} />
        </div>
        <p className="muted">Type it as printed, units included. Leave blank what the label does not say.</p>
        <LabelFields errors={errors} register={register} />
        <div className="mt-5 flex gap-3">
          <button type="submit" className="btn btn-primary">
            {asking ? 'Yes, the label says so' : 'Add filter'}
          </button>
          <button type="button" className="btn btn-ghost" onClick={() => dialog.current?.close()}>
            Save draft and close
          </button>
        </div>
      </form>
    </dialog>
  )
}

/** Maker, name, kind, and the figures of the label. */
function LabelFields({
  errors,
  register,
}: {
  readonly errors: FieldErrors<FormValues>
  readonly register: UseFormRegister<FormValues>
}) {
  return (
    <div className="mt-4 grid gap-x-6 gap-y-3 sm:grid-cols-2">
      <Line label="Maker" error={errors.maker?.message}>
        {(id) => (
          <input
            id={id}
            className="field"
            autoComplete="off"
            aria-invalid={errors.maker ? true : undefined}
            aria-describedby={`${id}-said`}
            {...register('maker')}
          />
        )}
      </Line>
      <Line label="Model" error={errors.name?.message}>
        {(id) => (
          <input
            id={id}
            className="field"
            autoComplete="off"
            aria-invalid={errors.name ? true : undefined}
            aria-describedby={`${id}-said`}
            {...register('name')}
          />
        )}
      </Line>
      <Line label="Kind of filter">
        {(id) => (
          <select id={id} className="field" {...register('kind')}>
            {KIND_OPTIONS.map(([v, l]) => (
              <option key={v} value={v}>
                {l}
              </option>
            ))}
          </select>
        )}
      </Line>
      {LABEL.map(([quantity, label, hint]) => {
        const error = errors.figures?.[quantity]
        return (
          <Line key={quantity} label={label} error={error?.message} ask={error?.type === 'ask'}>
            {(id) => (
              <input
                id={id}
                className="field num"
                autoComplete="off"
                placeholder={hint}
                aria-invalid={error ? true : undefined}
                aria-describedby={`${id}-said`}
                {...register(`figures.${quantity}`)}
              />
            )}
          </Line>
        )
      })}
    </div>
  )
}

function Line({
  label,
  error,
  ask,
  children,
}: {
  readonly label: string
  readonly error?: string | undefined
  readonly ask?: boolean
  readonly children: (id: string) => React.ReactNode
}) {
  const id = `new-${label.replace(/\W+/g, '-').toLowerCase()}`
  return (
    <div>
      <label className="kicker block" htmlFor={id}>
        {label}
      </label>
      {children(id)}
      <p
        id={`${id}-said`}
        aria-live="polite"
        className={`text-[0.88rem] leading-snug ${ask ? 'text-warning' : 'text-error'}`}
      >
        {error}
      </p>
    </div>
  )
}
