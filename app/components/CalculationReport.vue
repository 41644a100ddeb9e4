<script setup lang="ts">
/** The calculation of the machine from top to bottom, as it is handed over and printed. */
import { FileSpreadsheet, FileText, Printer } from 'lucide-vue-next'
import { calculationReport } from '@oar-bench/core/size/report'
import { inSentence } from '@oar-bench/core/size/text'

const sheetDocument = useSheetDocument()
const sizes = useMachineSizes()
const ownSeries = useOwnSeries()
const { show } = useUnits()
const { download } = useFiles()
const report = computed(() =>
  calculationReport(
    sheetDocument.sheet,
    sizes.brief,
    sizes.sizing,
    (si, quantity) => show(si, quantity),
    ownSeries.inForce,
  ),
)
const today = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long' }).format(new Date())
const variant = computed(() => sheetDocument.variants.find((v) => v.id === sheetDocument.sheetId)?.name)
const issue = computed(() => sheetDocument.sheet.page.issue)
const print = () => window.print()
const save = (content: Uint8Array, type: string, ending: string) =>
  download(new Blob([content as BlobPart], { type }), ending)
async function pdf() {
  const { calculationToPdf } = await import('@oar-bench/core/formats/calculation-pdf')
  const line = [variant.value, issue.value && `revision ${issue.value}`, today].filter(Boolean).join(', ')
  const heading = {
    title: `Calculation: ${sheetDocument.machine!.name}`,
    line,
    author: sheetDocument.sheet.page.drawnBy,
  }
  const { bytes } = await calculationToPdf(report.value, heading, letteringFonts)
  save(bytes, 'application/pdf', '-calculation.pdf')
}
async function workbook() {
  const { calculationWorkbook } = await import('@oar-bench/core/formats/calculation-xlsx')
  const title = `${sheetDocument.machine!.name}, ${variant.value ?? ''}, ${today}`
  const content = await calculationWorkbook(sizes.sizing, title)
  save(content, 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', '-calculation.xlsx')
}
</script>

<template>
  <article class="calculation mx-auto max-w-4xl" data-testid="calculation">
    <header class="mb-4 flex items-start gap-3">
      <div class="flex-1">
        <h1 class="font-lettering text-2xl font-medium">Calculation: {{ sheetDocument.machine?.name }}</h1>
        <p class="text-soft">
          {{ variant }}<template v-if="issue">, revision {{ issue }}</template
          >, {{ today }}
        </p>
      </div>
      <span class="flex gap-2 print:hidden">
        <button class="button" @click="print"><Printer :size="15" />Print</button>
        <button class="button" data-testid="calculation-pdf" @click="pdf"><FileText :size="15" />PDF</button>
        <button class="button" data-testid="calculation-xlsx" @click="workbook">
          <FileSpreadsheet :size="15" />XLSX with formulas
        </button>
      </span>
    </header>
    <section class="mb-4">
      <h2 class="heading border-b border-rule">Brief</h2>
      <p v-for="s in report.statements" :key="s.label" class="mt-1">
        <span class="text-soft">{{ s.label }}: </span>{{ s.text }}
      </p>
      <p class="mt-1">
        <template v-for="(c, i) in report.conditions" :key="c.label"
          ><template v-if="i">; </template><span class="text-soft">{{ c.label }}</span> {{ c.value
          }}<template v-if="c.origin !== 'brief'"> ({{ c.origin }})</template></template
        >.
      </p>
      <p v-for="m in report.motions" :key="m.name" class="mt-1">
        <b class="font-semibold">{{ m.name }}:</b>
        <template v-for="(v, i) in m.values" :key="v.label"
          ><template v-if="i">; </template> <span class="text-soft">{{ inSentence(v.label) }}</span>
          {{ v.value }}</template
        >.
      </p>
    </section>
    <section v-for="s in report.sections" :key="s.node" class="mb-4 break-inside-avoid">
      <h2 class="heading border-b border-rule">{{ s.title }}</h2>
      <p class="text-[13px] text-soft">{{ s.about }}</p>
      <p class="mt-1 text-[13px]">
        <template v-for="(v, i) in s.inputs" :key="v.label"
          ><template v-if="i">; </template><span class="text-soft">{{ v.label }}</span
          ><template v-if="v.symbol">{{ ' ' }}<MathText :text="v.symbol" /></template> = {{ v.value }}
          <span class="text-soft">({{ v.origin }})</span></template
        >.
      </p>
      <ol class="mt-1">
        <li v-for="step in s.steps" :key="step.label" class="flex gap-3 border-b border-rule/40 py-0.5">
          <span class="min-w-0 flex-1">
            <span class="text-soft">{{ step.label }}: </span>
            <template v-if="step.given">given</template>
            <template v-else
              ><i><MathText :text="step.symbol" /></i> = <MathText :text="step.formula" /> =
              <span class="text-soft">{{ step.numbers }}</span></template
            >
          </span>
          <b class="whitespace-nowrap font-semibold">{{ step.value }}</b>
        </li>
      </ol>
      <p v-for="r in s.remarks" :key="r" class="text-[13px] text-caution">{{ r }}</p>
      <p v-if="s.reason" class="text-[13px]">Chosen because: {{ s.reason }}</p>
      <p v-if="s.sheet.length" class="text-[13px] text-soft">On the sheet: {{ s.sheet.join('; ') }}.</p>
      <p class="text-xs text-soft">Source: <MathText :text="s.source" />.</p>
    </section>
    <p v-for="n in report.notes" :key="n" class="border-t border-rule pt-2 text-[13px]">{{ n }}</p>
  </article>
</template>

<style>
@media print {
  body:has(.calculation) header:not(.calculation header),
  body:has(.calculation) nav {
    display: none;
  }
  body:has(.calculation) * {
    overflow: visible !important;
    height: auto !important;
  }
}
</style>
