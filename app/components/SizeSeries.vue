<script setup lang="ts">
/** The series from which sizes are chosen: the standard ones, and those that the workspace adds or puts in their place. */
import { Copy, Download, Trash2, Upload } from 'lucide-vue-next'
import { copyOfStandard, readSeriesCsv, seriesRows } from '@oar-bench/core/formats/series-csv'
import { seriesNames, seriesUses, type OwnSeries } from '@oar-bench/core/size/own-series'
import { standardSeries, type SeriesName } from '@oar-bench/core/size/series'

const ownSeries = useOwnSeries()
const { csvFile, download } = useFiles()
const { show } = useUnits()

const rows = computed(() =>
  seriesNames.map((name) => {
    const { values, source, quantity, label } = ownSeries.inForce[name]
    const ends = [values[0], values.at(-1)!].map((v) => show(v, quantity, 4))
    return { name, label, source, count: values.length, range: ends.join(' to ') }
  }),
)
const ownOf = (name: SeriesName) => ownSeries.list.filter((s) => s.of === name)
const save = async (list: readonly OwnSeries[], ending: string) =>
  download(await csvFile(seriesRows(list)), ending)

async function read(file: File) {
  const found = readSeriesCsv(await file.text())
  if (found.ok) await ownSeries.add(found.value)
  else ownSeries.message = `Nothing was added. ${found.message}`
}
const setUse = (series: OwnSeries, use: OwnSeries['use']) => ownSeries.add([{ ...series, use }])
</script>

<template>
  <article class="mx-auto max-w-4xl" data-testid="series">
    <header class="mb-3 flex items-start gap-3">
      <div class="flex-1">
        <h1 class="font-lettering text-2xl font-medium">Series of sizes</h1>
        <p class="text-soft">
          Sizes are chosen from these. Sizes that your suppliers have can be added as a CSV table with the
          columns series, sizes of, use, source, size; copy a standard series to begin with. They hold for all
          machines of the workspace.
        </p>
      </div>
      <button
        v-if="ownSeries.list.length"
        class="button shrink-0"
        @click="save(ownSeries.list, '-series.csv')"
      >
        <Download :size="15" />Own series, CSV
      </button>
      <FileButton
        label="Add series from a CSV table"
        accept=".csv,.txt,text/csv"
        testid="series-file"
        @file="read"
      >
        <Upload :size="16" />
      </FileButton>
    </header>
    <p v-if="ownSeries.message" class="mb-2 text-error" role="alert" data-testid="series-message">
      {{ ownSeries.message }}
    </p>
    <table class="w-full text-left">
      <thead class="text-[13px] text-soft">
        <tr class="border-b border-rule">
          <th class="py-1 pr-3 font-normal">Sizes of</th>
          <th class="pr-3 font-normal">Source</th>
          <th class="pr-3 text-right font-normal">Sizes</th>
          <th class="pr-3 font-normal">Range</th>
          <th><span class="sr-only">To begin with</span></th>
        </tr>
      </thead>
      <tbody>
        <template v-for="row in rows" :key="row.name">
          <tr class="border-b border-rule/40" :data-testid="`series-${row.name}`">
            <td class="py-1 pr-3">{{ row.label }}</td>
            <td class="pr-3">{{ row.source }}</td>
            <td class="pr-3 text-right tabular-nums">{{ row.count }}</td>
            <td class="whitespace-nowrap pr-3 tabular-nums">{{ row.range }}</td>
            <td class="text-right">
              <button
                class="icon-button"
                :title="`${standardSeries[row.name].label}: the standard series as a table to begin with`"
                :aria-label="`${standardSeries[row.name].label}: standard series, CSV`"
                @click="save([copyOfStandard(row.name)], `-${row.name}.csv`)"
              >
                <Copy :size="15" />
              </button>
            </td>
          </tr>
          <tr v-for="own in ownOf(row.name)" :key="own.name" class="border-b border-rule/40 bg-pane">
            <td class="py-1 pl-5 pr-3 font-semibold">{{ own.name }}</td>
            <td class="pr-3">{{ own.source }}</td>
            <td class="pr-3 text-right tabular-nums">{{ own.sizes.length }}</td>
            <td class="pr-3">
              <ChoiceField
                :label="`${own.name}: use`"
                hide-label
                :model-value="own.use"
                :choices="seriesUses"
                @update:model-value="setUse(own, $event)"
              />
            </td>
            <td class="text-right">
              <button
                class="icon-button"
                :title="`Take ${own.name} away`"
                :aria-label="`Take ${own.name} away`"
                @click="ownSeries.remove(own.name)"
              >
                <Trash2 :size="15" />
              </button>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </article>
</template>
