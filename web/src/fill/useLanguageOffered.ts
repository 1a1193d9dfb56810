/** The version of a template in the language of its recipient, where a field of theirs says one and there is such a version. */
import type { TextSummary } from '@vocabula/contract';
import { localeAsked, saysLanguage } from '@vocabula/core/recipient-language';
import { computed, watch } from 'vue';
import { useTexts } from '../ui/stores/lists';
import type { Filling } from './useFill';

export function useLanguageOffered({ fill, recipient, program }: Pick<Filling, 'fill' | 'recipient' | 'program'>) {
  const texts = useTexts();
  const says = computed(() => saysLanguage(recipient.value));
  // Few recipients say a language: the list is not fetched for the others. Without it, nothing is offered.
  watch(says, (now) => now && !texts.loaded && void texts.load().catch(() => undefined), { immediate: true });
  const offered = computed((): TextSummary | undefined => {
    const [name, own] = [fill.value?.text, program.value?.locale];
    if (!says.value || name === undefined || own === undefined) return undefined;
    const of = texts.standing.find((text) => text.name === name)?.translationOf ?? name;
    const others = texts.standing.filter(
      (text) => text.offered && text.name !== name && (text.name === of || text.translationOf === of),
    );
    // Its own language first: where that is the one, nothing else is.
    const locale = localeAsked(recipient.value, [own, ...others.flatMap((text) => text.locale ?? [])]);
    return locale === own ? undefined : others.find((text) => text.locale === locale);
  });
  return offered;
}
