import { describe, expect, it } from 'vitest';
import { decodeAs, decodeSurely, decodeText, possibleEncodings } from './decode';

/** Texts as they are written in encodings that are older than UTF-8, in base 64. */
const OLD: [encoding: string, bytes: string, text: string][] = [
  [
    'shift_jis',
    'jOGUeYLNlEyCxYKggumBQpa8kU+CzYLcgr6Ws4KigUKCx4KxgsWQtoLqgr2CqYLGgvGCxoypk5aCqoLCgqmCyoFCib2CxYLglJaIw4KigraC34K2gt+CtYK9j4qCxYNqg4OBW4Nqg4OBW4uDgqKCxIKigr2OloK+gq+CzYtMia+CtYLEgqKC6YFC',
    '吾輩は猫である。名前はまだ無い。どこで生れたかとんと見当がつかぬ。何でも薄暗いじめじめした所でニャーニャー泣いていた事だけは記憶している。',
  ],
  [
    'euc-jp',
    'uOPH2qTPx62kx6SipOuho8y+wbCkz6TepMDMtaSkoaOkyaSzpMfAuKTspL+kq6TIpPOkyLirxfakrKTEpKukzKGjsr+kx6Tix/awxaSkpLik4aS4pOGkt6S/veqkx6XLpeOhvKXLpeOhvLXjpKSkxqSkpL+79qTApLGkz7WtsrGkt6TGpKSk66Gj',
    '吾輩は猫である。名前はまだ無い。どこで生れたかとんと見当がつかぬ。何でも薄暗いじめじめした所でニャーニャー泣いていた事だけは記憶している。',
  ],
  [
    'gb18030',
    'tcbL/r+0ytjIy8O/zOzN7cnPwfm147XjtcajrMj9yq7E6sC0tNPOtLPZtb2ho8v7y7W6o7K7u+G1yMjLo6zIy9Kysrux2LXIuqOho7TlwO+1xLqi19O2vNGnu+HBy7+0tca1xNHVyauhow==',
    '灯塔看守人每天晚上六点点灯，三十年来从未迟到。他说海不会等人，人也不必等海。村里的孩子都学会了看灯的颜色。',
  ],
  [
    'big5',
    'v0+28KzdpnWkSKhDpNGx36RXpLvCScJJv0+hQaRUpFGmfqjTsXGlvL/wqOyhQ6VMu6Gu/KSjt3y1paRIoUGkSKRdpKOlsrWlrvyhQ6f4uMyquqvEpGyzo77Ht3ykRqzdv0+qusNDpuKhQw==',
    '燈塔看守人每天晚上六點點燈，三十年來從未遲到。他說海不會等人，人也不必等海。村裡的孩子都學會了看燈的顏色。',
  ],
  [
    'windows-1251',
    'yuDt4PIg8fLg8OXl8iDo5+3z8vDoLCDgIO3lIPHt4PDz5ugsIOgg7ejq8u4g7eUg8ev7+OjyLCDq4Oog7u0g8OK48vH/LiDC8eUg8ev7+ODyLCDq4Oog7u0g7+Dk4OXyIO3gIO/g6/Ph8y4=',
    'Канат стареет изнутри, а не снаружи, и никто не слышит, как он рвётся. Все слышат, как он падает на палубу.',
  ],
  [
    'koi8-r',
    '68HOwdQg09TB0sXF1CDJ2s7V1NLJLCDBIM7FINPOwdLV1sksIMkgzsnL1M8gzsUg08zZ28nULCDLwcsgz84g0tej1NPRLiD308Ug08zZ28HULCDLwcsgz84g0MHEwcXUIM7BINDBzNXC1S4=',
    'Канат стареет изнутри, а не снаружи, и никто не слышит, как он рвётся. Все слышат, как он падает на палубу.',
  ],
  [
    'iso-8859-1',
    'RGFzIFRhdSBhbHRlcnQgdm9uIGlubmVuLCBuaWNodCB2b24gYXXfZW4sIHVuZCBuaWVtYW5kIGj2cnQsIHdpZSBlcyByZWnfdC4gQWxsZSBo9nJlbiwgd2llIGVzIGF1ZiBkYXMgRGVjayBm5GxsdC4gRvxyIGRlbiBL5HVmZXIgaXN0IGRhcyBzY2j2bi4=',
    'Das Tau altert von innen, nicht von außen, und niemand hört, wie es reißt. Alle hören, wie es auf das Deck fällt. Für den Käufer ist das schön.',
  ],
  [
    'windows-1250',
    'TGluYSBzdOFybmUgemV2bml0+CwgbmUgenZlbujtLCBhIG5pa2RvIG5lc2x5mu0sIGphayBzZSB0cmjhLiBWmmljaG5pIHNseZrtLCBqYWsgZG9wYWRuZSBuYSBwYWx1YnUsIPjta+EgcPjtc3Rhdm7tIG1pc3RyLg==',
    'Lina stárne zevnitř, ne zvenčí, a nikdo neslyší, jak se trhá. Všichni slyší, jak dopadne na palubu, říká přístavní mistr.',
  ],
  [
    'euc-kr',
    'te6068H2seK0wiC4xcDPIMD6s+Egv6m8uCC9w7+hILrSwLsgxNK02S4gu++9yiCz4iC1v77IIMfRILn4tbUgtMrB9iC+yr7StNkuILnZtNm0wiC757b3wLsgseK02biuwfYgvsq0wrTZsO0gsde0wiC4u8fRtNku',
    '등대지기는 매일 저녁 여섯 시에 불을 켠다. 삼십 년 동안 한 번도 늦지 않았다. 바다는 사람을 기다리지 않는다고 그는 말한다.',
  ],
];

describe('a text in an old encoding', () => {
  it.each(OLD)('is recognised: %s', (encoding, bytes, text) => {
    const read = decodeSurely(Buffer.from(bytes, 'base64'));
    expect([read?.encoding, read?.text]).toEqual([encoding, text]);
  });

  it('is offered in the ways it may be where its bytes do not tell, each with how it reads', () => {
    const bytes = Buffer.from('a \xc1\xd4 b \xe9\xfe', 'latin1');
    expect(decodeSurely(bytes)).toBeNull();
    expect(decodeText(bytes)).toBe('a ÁÔ b éþ');
    const ways = possibleEncodings(bytes);
    expect(ways.length).toBeGreaterThan(1);
    expect(new Set(ways.map(({ preview }) => preview)).size).toBe(ways.length);
    for (const { encoding, preview } of ways) expect(decodeAs(bytes, encoding)).toContain(preview);
  });

  it('is read as its page says', () => {
    const page = Buffer.concat([
      Buffer.from('<html><head><meta charset="koi8-r"></head><body>'),
      Buffer.from([0xeb, 0xc1, 0xce, 0xc1, 0xd4]),
    ]);
    expect(decodeSurely(page)?.text).toContain('Канат');
    expect(decodeAs(page, 'no-such-one')).toBeNull();
  });
});
