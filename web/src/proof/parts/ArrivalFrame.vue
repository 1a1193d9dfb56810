<script setup lang="ts">
/** A message as a family of mail programs shows it, with the numbers of its losses in the gutter. */
import { MARK } from '@vocabula/core/arrives';
import { computed, useTemplateRef } from 'vue';
import { assetUrl } from '../../api/client';

const props = defineProps<{ html: string; title: string; width?: number | undefined }>();
const emit = defineEmits<{ shown: [page: Document] }>();
const frame = useTemplateRef('frame');

/** Of the table rather than of the message: the gutter, and what stands in it. */
const GUTTER = `
  html { color-scheme: light; }
  body { margin: 0 !important; padding: 16px 16px 16px 32px !important; position: relative; overflow-wrap: break-word; }
  [${MARK}] { outline: 1px dotted #857D6E; outline-offset: 2px; }
  .vx-number { position: absolute; left: 4px; width: 20px; font: 600 12px/16px sans-serif; color: #7A5400; background: #FFFDF8; text-align: center; }
`;
/** Images of the library come from this server; those of elsewhere are not fetched. */
const srcdoc = computed(() =>
  props.html
    .replace(/(<img\b[^<>]*?\ssrc=")([^"]*)(")/g, (whole, before: string, source: string, after: string) =>
      source.startsWith('assets/')
        ? before + assetUrl(source) + after
        : source.startsWith('data:')
          ? whole
          : before + after,
    )
    .replace('</head>', `<style>${GUTTER}</style></head>`),
);

function shown(): void {
  const page = frame.value?.contentDocument;
  if (!page?.body || !frame.value) return;
  const seen = new Set<string>();
  for (const element of page.querySelectorAll(`[${MARK}]`)) {
    const number = element.getAttribute(MARK) ?? '';
    const top = Math.round(element.getBoundingClientRect().top + (page.scrollingElement?.scrollTop ?? 0));
    if (seen.has(`${number} ${top}`)) continue;
    seen.add(`${number} ${top}`);
    const label = Object.assign(page.createElement('span'), { className: 'vx-number', textContent: number });
    label.style.top = `${top}px`;
    page.body.append(label);
  }
  frame.value.style.height = `${page.documentElement.scrollHeight}px`;
  emit('shown', page);
}
</script>

<template>
  <iframe
    ref="frame"
    sandbox="allow-same-origin"
    :title="title"
    :srcdoc="srcdoc"
    :style="width ? { width: `${width}px` } : {}"
    @load="shown"
  />
</template>

<style scoped>
iframe {
  display: block;
  width: 100%;
  min-height: 320px;
  border: 0;
}
</style>
