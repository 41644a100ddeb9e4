/** Exports by the name of a format, for buttons beside what they write. */
import { exportFormats } from '@oar-bench/core/formats/registry'
import { useFiles } from './useFiles'

export function useFormatExport() {
  const { exportSheet } = useFiles()
  return {
    /** @param name of an export format; its file is downloaded */
    async exportFormat(name: string): Promise<void> {
      const format = exportFormats.find((f) => f.name === name)
      if (!format) throw new Error(`There is no format "${name}".`)
      await exportSheet(format)
    },
  }
}
