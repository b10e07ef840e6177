import { soft, styled } from '../sampleAssembly.ts';
import type { EditionTexts } from './edition.ts';

/** Open Dome Night in Japanese. */
export const flyerJapanese: EditionTexts = {
  'title-text-1': ['ドームが', soft, 'ひらく夜'],
  'when-text-1': [styled('三月六日(金) 夜七時から', { fontWeight: 700, size: 14, fill: { type: 'swatch', swatch: 'night', tint: 1 } })],
  'when-text-2': [
    '一時間に一度モーターを止め、重さ九トンのドームを',
    styled('人の手で', { fontWeight: 700 }),
    '回します。どうぞ綱をお取りください。',
    styled('先頭は子どもたちです', { fontWeight: 700 }),
    '。',
  ],
  'bring-text-1': ['持ちもの'],
  'list-text-1': [styled('暖かい上着。', { fontWeight: 700 }), '屋根が開いているので、中も外と同じ寒さです。'],
  'list-text-2': [styled('赤い明かり。', { fontWeight: 700 }), '懐中電灯に赤い紙をかぶせても結構です。'],
  'list-text-3': [styled('歩きやすい靴。', { fontWeight: 700 }), '水車小屋の裏の道を登ります。'],
  'list-text-4': [styled('温かい飲みもの。', { fontWeight: 700 }), '水筒でどうぞ。丘に売店はありません。'],
  'list-text-5': [styled('質問をひとつ。', { fontWeight: 700 }), '空について、ずっと聞きたかったことを。'],
  'list-text-6': [styled('手袋。', { fontWeight: 700 }), '綱を引いてみたい方は、ぜひ。'],
  'foot-text-1': [
    'マロービー・ヒル天文台、水車小屋の裏の道の上。入場無料。曇りの夜もドームは回します。',
    {
      type: 'span',
      text: 'marrowby.example',
      link: 'site',
      overrides: { fontWeight: 600, fill: { type: 'swatch', swatch: 'lamp', tint: 1 } },
    },
  ],
};
