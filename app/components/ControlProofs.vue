<script setup lang="ts">
/** What must never be: proved by going through all states of the logic, or shown by an order of events. */
import { proxy } from 'comlink'
import { CircleCheck, CircleX, Eye, Hourglass, Play, Plus, Trash2 } from 'lucide-vue-next'
import type { Proof } from '@oar-bench/core/control/explore'
import { eventWords } from '@oar-bench/core/control/counterexample'
import {
  addRequirement,
  changeRequirement,
  removeRequirement,
  requirementFromText,
  requirementToText,
} from '@oar-bench/core/control/edit'
import { operationFindings } from '@oar-bench/core/control/operation'
import { switchFacts } from '@oar-bench/core/control/facts'
import { nameOf, type Sheet } from '@oar-bench/core/sheet/schema'
import { workerClient, type WorkerClient } from '../utils/workerClient'
import type { Prover } from '../workers/proof.worker'

const sheetDocument = useSheetDocument()
const runs = useSimulationRuns()
const checks = useSheetChecks()
const route = useRoute()
const proofs = shallowRef<readonly Proof[]>([])
/** The sheet that was proved. */
const provedSheet = shallowRef<Sheet>()
const running = ref(false)
const states = ref(0)
const problem = ref('')
let client: WorkerClient<Prover> | undefined

async function start() {
  end()
  const sheet = sheetDocument.sheet
  running.value = true
  states.value = 0
  problem.value = ''
  client = workerClient<Prover>(
    new Worker(new URL('../workers/proof.worker.ts', import.meta.url), { type: 'module' }),
    'The proof could not be started.',
  )
  const current = client
  try {
    const done = await Promise.race([
      current.remote.prove(
        sheet,
        proxy((n: number, found?: Proof[]) => {
          states.value = n
          if (!found || client !== current) return
          proofs.value = found
          provedSheet.value = sheet
        }),
      ),
      current.failed,
    ])
    if (client !== current) return
    problem.value = done.problem ?? ''
    proofs.value = done.proofs
    provedSheet.value = sheet
  } catch (error) {
    if (client === current) problem.value = (error as Error).message
  } finally {
    if (client === current) running.value = false
  }
}
/** Ends it after what is under way; how the claims stand then is shown. */
function stop() {
  void client?.remote.end()
}
function end() {
  client?.worker.terminate()
  client = undefined
  running.value = false
}
onBeforeUnmount(end)
onMounted(() => {
  if (control.value.rungs.length || control.value.sequences.length) void start()
})
const control = computed(() => sheetDocument.sheet.control)
const outdated = computed(() => provedSheet.value && provedSheet.value.control !== control.value)
const outcomes: Record<Proof['outcome'], string> = {
  proved: 'Proved: no order of events leads there.',
  refuted: 'It happens, in this order:',
  orders: 'Only an order of relays that their times exclude leads there: not proved for other times.',
  chance: 'Only causes that come at exactly one instant lead there; a run reports it where it happens.',
  unfinished: 'Not decided yet: there are more states than were looked at.',
  watched: 'About the machine: it is watched in every run, the logic alone cannot prove it.',
}
const outcomeText = ({ outcome }: Proof) =>
  outcome === 'unfinished' && running.value ? 'Not decided yet.' : outcomes[outcome]
const words = (proof: Proof) => proof.events.map((e) => eventWords(provedSheet.value!, e))
async function play(proof: Proof) {
  const { playCounterexample } = await import('@oar-bench/core/control/counterexample')
  runs.showResult(
    playCounterexample(provedSheet.value!, proof.events),
    provedSheet.value!,
    `Counter-example: ${proof.name}`,
  )
  await navigateTo({ path: `/machines/${sheetDocument.machine!.id}/run`, query: route.query })
}
/** What the brief asks for and the control does not do. */
const operation = computed(() =>
  operationFindings(sheetDocument.sheet, sheetDocument.brief.operation, outdated.value ? [] : proofs.value),
)
const facts = computed(() =>
  switchFacts(sheetDocument.sheet).map(({ all }) =>
    all.map((id) => nameOf(sheetDocument.sheet.components.find((c) => c.id === id)!)).join(' and '),
  ),
)
function changeNever(id: string, event: Event) {
  const text = (event.target as HTMLInputElement).value
  sheetDocument.apply(
    changeRequirement(sheetDocument.sheet, id, {
      never: requirementFromText(sheetDocument.sheet, text).slice(0, 500),
    }),
  )
}
function changeName(id: string, before: string, event: Event) {
  const text = typedText(event, before)
  if (text !== undefined)
    sheetDocument.apply(changeRequirement(sheetDocument.sheet, id, { name: text.slice(0, 200) }))
}
const problemsOf = (id: string) => checks.findings.filter((f) => f.location.control === id)
</script>

<template>
  <div class="min-h-0 flex-1 overflow-auto bg-paper p-4" data-testid="control-proofs">
    <div class="flex items-center gap-2">
      <h2 class="font-lettering text-xl">What must never be</h2>
      <span v-if="running" class="text-soft" role="status">{{ states }} states …</span>
      <button v-if="running" class="button" data-testid="stop-proof" @click="stop">Stop</button>
      <button v-else class="button" data-testid="prove" @click="start">
        {{ proofs.length ? 'Prove again' : 'Prove' }}
      </button>
    </div>
    <p class="max-w-3xl text-[13px] text-soft">
      All orders of presses, switches, relays and timers are gone through. It proves the logic as drawn; a
      stuck contact, a wrong wire or a failed valve is not in it, and a safety function needs the assessment
      of ISO 13849 by a qualified person.
    </p>
    <p v-if="problem" class="mt-2 text-error" role="alert">{{ problem }}</p>
    <p v-if="outdated" class="mt-2 text-caution" role="status">
      The control has changed since: prove it again.
    </p>
    <ol class="mt-2 max-w-4xl">
      <li
        v-for="p in proofs"
        :key="p.id"
        class="flex gap-2 border-b border-rule/60 py-2"
        :data-testid="`proof-${p.id}`"
        :data-outcome="p.outcome"
      >
        <CircleCheck
          v-if="p.outcome === 'proved'"
          :size="18"
          class="mt-0.5 shrink-0 text-good"
          aria-hidden="true"
        />
        <CircleX
          v-else-if="p.outcome === 'refuted'"
          :size="18"
          class="mt-0.5 shrink-0 text-error"
          aria-hidden="true"
        />
        <Eye
          v-else-if="p.outcome === 'watched' || p.outcome === 'chance'"
          :size="18"
          class="mt-0.5 shrink-0 text-soft"
          aria-hidden="true"
        />
        <Hourglass v-else :size="18" class="mt-0.5 shrink-0 text-caution" aria-hidden="true" />
        <div class="min-w-0 flex-1">
          <p class="font-semibold">{{ p.name }}</p>
          <p class="text-[13px]">
            {{ outcomeText(p) }}
            <span v-if="p.states" class="text-soft">{{ p.states }} states seen.</span>
          </p>
          <ol v-if="p.events.length" class="mt-1 list-inside list-decimal text-[13px]">
            <li v-for="(w, i) in words(p)" :key="i">{{ w }}</li>
          </ol>
          <button
            v-if="p.outcome === 'refuted'"
            class="button mt-1"
            data-testid="play-proof"
            @click="play(p)"
          >
            <Play :size="14" aria-hidden="true" />Show it on the tape
          </button>
        </div>
      </li>
    </ol>
    <template v-if="operation.length">
      <h3 class="heading mt-5">Against the brief</h3>
      <ul class="max-w-3xl text-[13px] text-caution" data-testid="operation-findings">
        <li v-for="text in operation" :key="text" class="py-0.5">{{ text }}</li>
      </ul>
    </template>
    <h3 class="heading mt-5">Requirements of this machine</h3>
    <p class="max-w-3xl text-[13px] text-soft">
      Contacts and coils that must never be so together, such as
      <span class="font-lettering">1-2V1.a · /1-1S2</span>. They are proved, and watched in every run. A fact
      about the machine is taken for granted by the proofs, and watched as well.
    </p>
    <ul class="max-w-4xl">
      <li
        v-for="r in control.requirements"
        :key="r.id"
        class="flex flex-wrap items-center gap-2 border-b border-rule/60 py-1.5"
      >
        <input
          class="field !w-72"
          :value="r.name"
          placeholder="In words"
          aria-label="What must never be, in words"
          maxlength="200"
          @change="changeName(r.id, r.name, $event)"
        />
        <input
          class="field !w-80 font-lettering"
          :value="requirementToText(sheetDocument.sheet, r.never)"
          placeholder="Contacts and coils"
          aria-label="What must never be, as contacts and coils"
          :aria-invalid="problemsOf(r.id).some((f) => f.severity === 'error')"
          maxlength="500"
          :data-testid="`never-${r.id}`"
          @change="changeNever(r.id, $event)"
        />
        <label class="flex items-center gap-1 text-[13px]">
          <input
            type="checkbox"
            :checked="r.assumed"
            @change="
              sheetDocument.apply(
                changeRequirement(sheetDocument.sheet, r.id, {
                  assumed: ($event.target as HTMLInputElement).checked,
                }),
              )
            "
          />a fact about the machine
        </label>
        <ToolButton
          label="Delete the requirement"
          @click="sheetDocument.apply(removeRequirement(sheetDocument.sheet, r.id))"
        >
          <Trash2 :size="15" />
        </ToolButton>
        <p v-for="(f, i) in problemsOf(r.id)" :key="i" class="w-full text-[13px] text-error" role="alert">
          {{ f.message }}
        </p>
      </li>
    </ul>
    <button
      class="button mt-2"
      data-testid="add-requirement"
      @click="sheetDocument.apply(addRequirement(sheetDocument.sheet))"
    >
      <Plus :size="15" aria-hidden="true" />Requirement
    </button>
    <template v-if="facts.length">
      <h3 class="heading mt-5">Facts from the sheet</h3>
      <p v-for="f in facts" :key="f" class="text-[13px]">
        {{ f }} are never on together: they watch one rod in ranges that lie apart.
      </p>
    </template>
  </div>
</template>
