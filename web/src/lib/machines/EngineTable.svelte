<script lang="ts">
  import NumberField from '#lib/NumberField.svelte';
  import type { Schemas } from '#lib/api/client.ts';

  type Row = Schemas['FormatCapability'];

  /** What a media engine decodes or encodes, or a program hands over to it: a row a format, each the most of it. */
  let { rows, name, does = 'takes' }: { rows: Row[]; name: string; does?: string } = $props();

  const codecs: Partial<Record<Row['codec'], string>> = {
    avc: 'AVC', hevc: 'HEVC', av1: 'AV1', vp9: 'VP9', mpeg2: 'MPEG-2', rdd36: 'RDD 36', vc3: 'VC-3', vc5: 'VC-5', motionJpeg: 'Motion JPEG', jpeg2000: 'JPEG 2000', cameraRaw: 'camera raw'
  };
  const chromas: Partial<Record<Row['chroma'], string>> = { quarter: '4:2:0', half: '4:2:2', full: '4:4:4' };
  const add = () => rows.push({ codec: 'hevc', chroma: 'quarter', maxBitDepth: 10, maxRaster: { width: 3840, height: 2160 } });
</script>

<div class="basis-full"><table class="text-sm">
  <caption class="quiet text-left text-xs">It {does} each of these and anything smaller: 10 bit includes 8 bit, 4:2:2 includes 4:2:0.</caption>
  <thead class="sr-only"><tr><th scope="col">codec</th><th scope="col">chroma</th><th scope="col">bits</th><th scope="col">width</th><th scope="col">height</th><th scope="col">remove</th></tr></thead>
  <tbody>
    {#each rows as row, at (at)}
      <tr>
        <td class="pr-2"><select class="select select-xs w-32" aria-label="Codec {at + 1} of {name}" bind:value={row.codec}>{#each Object.entries(codecs) as [value, word] (value)}<option {value}>{word}</option>{/each}</select></td>
        <td class="pr-2"><select class="select select-xs w-20" aria-label="Chroma {at + 1} of {name}" bind:value={row.chroma}>{#each Object.entries(chromas) as [value, word] (value)}<option {value}>{word}</option>{/each}</select></td>
        <td class="pr-2"><NumberField class="input-xs w-12" label="Bits {at + 1} of {name}" value={row.maxBitDepth} min={8} max={16} whole onchange={(value) => (row.maxBitDepth = value)} /> bit, up to</td>
        <td class="pr-1"><NumberField class="input-xs w-16" label="Width {at + 1} of {name}" value={row.maxRaster.width} min={16} max={65536} whole onchange={(value) => (row.maxRaster.width = value)} /> ×</td>
        <td class="pr-2"><NumberField class="input-xs w-16" label="Height {at + 1} of {name}" value={row.maxRaster.height} min={16} max={65536} whole onchange={(value) => (row.maxRaster.height = value)} /></td>
        <td><button class="link text-xs" type="button" aria-label="Remove row {at + 1} of {name}" onclick={() => rows.splice(at, 1)}>remove</button></td>
      </tr>
    {/each}
  </tbody>
  <tfoot><tr><td colspan="6"><button class="link text-xs" type="button" onclick={add}>Add a format</button></td></tr></tfoot>
</table></div>
