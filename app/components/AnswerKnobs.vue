<script setup lang="ts">
/** What would change the figure asked about: each setting, size and load by one step, and the value that gives a wanted figure. */
import { proxy } from 'comlink'
import { watchDebounced } from '@vueuse/core'
import { leastChange, LONGEST_MOTION } from '@oar-bench/core/explain/figures'
import type { Knob, Knobs } from '@oar-bench/core/explain/knobs'
import { parseQuantity } from '@oar-bench/core/units/text'
import { shownUnit } from '@oar-bench/core/units/quantities'
import type { KnobTester } from '../workers/knobs.worker'

/** ms without a move of the tape after which it is worked out. */
const AT_REST = 250
/** Knobs listed at first. */
const MOST = 8

const answers = useAnswers()
const { show, system } = useUnits()
/** It stays open from one place to the next. */
const open = useState('knobs-open', () => false)
const { answer: found, busy, problem, ask: askLatest, cancel: forget } = useLatest<Knobs>()
const progress = ref(0)
const asking = ref<string>()
const wanted = ref('')
const wantedAnswer = ref('')
let client: WorkerClient<KnobTester> | undefined

function tester(): WorkerClient<KnobTester> {
  client ??= workerClient<KnobTester>(
    new Worker(new URL('../workers/knobs.worker.ts', import.meta.url), { type: 'module' }),
    'This could not be worked out.',
  )
  return client
}
function stop(): void {
  client?.worker.terminate()
  client = undefined
}
/** Ends what is being worked out. */
function cancel(): void {
  if (busy.value) stop()
  forget()
}
onBeforeUnmount(stop)

/** What is asked about, by its label: the pressure, unless another figure of the place is chosen. */
const wantedFigure = ref('')
const named = computed(
  () => answers.figures.find((f) => f.label === wantedFigure.value) ?? answers.figures[0],
)
const figure = computed(() => named.value?.figure)
const quantity = computed(() => named.value?.quantity ?? 'pressure')
const isUntilStill = computed(() => figure.value?.kind === 'untilStill')
/** What was found for another place, instant or figure must not stand beside this one. */
function clear(): void {
  cancel()
  found.value = undefined
  asking.value = undefined
  problem.value = ''
}
function update(): void {
  const asked = figure.value
  const state = open.value && asked ? answers.state() : undefined
  if (!asked || !state) return
  progress.value = 0
  const { remote, failed } = tester()
  void askLatest((isLatest) =>
    Promise.race([
      remote.knobs(
        state,
        asked,
        proxy((share: number) => {
          if (isLatest()) progress.value = share
        }),
      ),
      failed,
    ]),
  )
}
const question = [open, () => answers.figures, wantedFigure]
watch(question, clear)
watchDebounced(question, update, { debounce: AT_REST, immediate: true })

const effective = computed(() => {
  const { knobs = [], now = 0 } = found.value ?? {}
  const least = figure.value ? leastChange(figure.value, now) : 0
  return knobs.filter(({ effect }) => effect !== 0 && Math.abs(effect) >= least)
})
const without = computed(() => (found.value?.knobs.length ?? 0) - effective.value.length)
const signed = (value: number) => `${value > 0 ? '+' : ''}${show(value, quantity.value, 3)}`
const keyOf = ({ part, parameter }: Knob) => `${part}.${parameter}`

function ask(knob: Knob): void {
  const key = keyOf(knob)
  asking.value = asking.value === key ? undefined : key
  wanted.value = ''
  wantedAnswer.value = ''
}
async function findValue(knob: Knob): Promise<void> {
  const read = parseQuantity(wanted.value, quantity.value, shownUnit(quantity.value, system.value))
  if (!read.ok) {
    wantedAnswer.value = read.message
    return
  }
  const state = answers.state()
  if (!state || !figure.value) return
  wantedAnswer.value = '…'
  const { remote, failed } = tester()
  const about = found.value
  // another place or instant may be asked about meanwhile, or another value
  const isCurrent = () => found.value === about && asking.value === keyOf(knob)
  try {
    const value = await Promise.race([
      remote.valueFor(state, figure.value, knob.part, knob.parameter, read.si),
      failed,
    ])
    if (!isCurrent()) return
    wantedAnswer.value = value
      ? `${knob.label} of ${show(value.value, knob.quantity)} gives ${show(value.figure, quantity.value)}.`
      : `No value of it between a tenth and five times what it is gives ${show(read.si, quantity.value)}.`
  } catch (error) {
    if (isCurrent()) wantedAnswer.value = (error as Error).message
  }
}
</script>

<template>
  <section class="mt-4">
    <div class="flex items-center justify-between gap-2">
      <h3 class="heading">What would change it</h3>
      <button
        class="button !px-2 !py-0.5"
        :aria-pressed="open"
        data-testid="knobs-open"
        @click="open = !open"
      >
        {{ open ? 'Hide' : 'Work it out' }}
      </button>
    </div>
    <template v-if="open">
      <select
        v-if="answers.figures.length > 1"
        v-model="wantedFigure"
        class="field mt-1"
        aria-label="What is asked about"
        data-testid="figure"
      >
        <option v-for="(f, i) in answers.figures" :key="f.label" :value="i ? f.label : ''">
          {{ f.label }}
        </option>
      </select>
      <p v-if="busy" class="flex items-center gap-2 text-[13px] text-soft" role="status">
        Solving again with each value changed: {{ Math.round(100 * progress) }} %
        <button class="underline" @click="cancel">Cancel</button>
      </p>
      <p v-if="problem" class="text-error" role="alert">{{ problem }}</p>
      <ol v-if="found" class="divide-y divide-rule/60 text-[13px]" data-testid="knobs">
        <li v-for="k in effective.slice(0, MOST)" :key="keyOf(k)" class="py-1">
          <button
            class="flex w-full justify-between gap-2 text-left hover:text-accent"
            :aria-expanded="asking === keyOf(k)"
            :data-testid="`knob-${keyOf(k)}`"
            @click="ask(k)"
          >
            <span class="min-w-0">
              {{ k.label }}
              <span class="text-soft"
                >{{ show(k.from, k.quantity, 3) }} → {{ show(k.to, k.quantity, 3) }}</span
              >
            </span>
            <span class="shrink-0 font-lettering">{{ signed(k.effect) }}</span>
          </button>
          <form v-if="asking === keyOf(k)" class="mt-1" @submit.prevent="findValue(k)">
            <label class="block text-soft">
              What value of it gives, as {{ named?.label }}:
              <input
                v-model="wanted"
                class="field"
                :placeholder="show(found.now, quantity)"
                data-testid="wanted"
              />
            </label>
            <p v-if="wantedAnswer" class="mt-1" role="status" data-testid="wanted-answer">
              {{ wantedAnswer }}
            </p>
          </form>
        </li>
      </ol>
      <p v-if="found && Number.isNaN(found.now)" role="status">
        {{
          isUntilStill
            ? `With all commands held it does not come to rest within ${show(LONGEST_MOTION, 'time')}.`
            : 'From here it could not be solved on.'
        }}
      </p>
      <p v-else-if="found && !busy" class="mt-1 text-[12px] text-soft">
        <template v-if="isUntilStill"
          >As it is: <span data-testid="figure-now">{{ show(found.now, quantity, 3) }}</span>.</template
        >
        One step each: a setting by 10 bar, anything else by a tenth; solved on
        {{ isUntilStill ? 'until it stands still' : 'for a quarter of a second' }} with all commands held.
        {{ without }} others change nothing here.
      </p>
    </template>
  </section>
</template>
