/** Words by which parts of a text that are none of its thought are known, in the languages that Bimlo knows. */

/** Headings of tables of contents. */
export const CONTENTS_HEADING =
  /^(?:table of )?contents$|^on this page$|^in this (?:article|post|issue)$|^inhalt(?:sverzeichnis|sübersicht)?$|^auf dieser seite$|^table des matières$|^sommaire$|^tabla de contenidos?$|^contenidos?$|^índice$|^sumário$|^conteúdo$/iu;

/** Headings of sections that list where things were taken from, or where else to read. */
export const REFERENCE_HEADING =
  /^(?:references?|(?:short |selected |annotated )?bibliography|works cited|(?:foot|end)?notes|notes and references|sources?|citations|(?:further|additional) reading|external links|see also|related (?:articles|posts|pages)|einzelnachweise|literatur(?:verzeichnis)?|quelle(?:n|\(n\))?|weiterführende literatur|fußnoten|anmerkungen|weblinks|siehe auch|références?|(?:kurze |kommentierte )?bibliogra(?:ph|f)ie(?: (?:succincte|sommaire|sélective|commentée|générale))?|notes et références|notes de bas de page|voir aussi|liens externes|referencias|bibliografía(?: (?:breve|básica|seleccionada|comentada))?|notas(?: y referencias| al pie(?: de página)?)?|lecturas (?:adicionales|complementarias)|véase también|enlaces externos|referências|bibliografia(?: (?:breve|básica|selecionada|comentada))?|notas(?: e referências| de rodapé)|ver também|ligações externas)$/iu;

/** Headings of sections that name who made something, and who helped. */
export const CREDIT_HEADING =
  /^(?:thanks(?: to)?|thank you|acknowledge?ments?|credits|(?:about the )?authors?|contributors|contacts?|dank(?:e|sagung)?(?: an)?|autor(?:en|in)?|(?:über (?:den|die) )?autor(?:en|in)?|mitwirkende|kontakt|remerciements|merci|(?:à propos (?:de l’auteur|des auteurs))|auteurs?|contributeurs|agradecimientos|gracias|(?:sobre (?:el|la|los) )?autor(?:a|es)?|colaboradores|contacto|agradecimentos|obrigad[oa]s?|colaboradores|contato)$/iu;

/** Headings of sections on what may be done with a text. */
export const LICENCE_HEADING =
  /^(?:licen[cs]e|licensing|copyright|legal notice|terms of use|fair use|disclaimer|lizenz|urheberrecht|impressum|licence|mentions légales|licencia|aviso legal|uso justo|licença|direitos autorais)$/iu;

/** What a note on rights says, in small letters: to fold them in the pattern takes many times as long. */
export const LICENCE =
  /©|\(c\) ?\d{4}|\bcopyright\b[^.]{0,40}\d{4}|\ball rights reserved\b|\blicen[cs]ed under\b|\bunder the terms of the\b[^.]{0,60}\blicen[cs]e\b|\bpermission is (?:hereby )?granted\b|\bmay (?:not )?be (?:reproduced|copied|distributed)\b|\balle rechte vorbehalten\b|\bsteht unter der lizenz\b|\btous droits réservés\b|\btodos los derechos reservados\b|\btodos os direitos reservados\b/u;

/** Who made something: at the beginning of a line that says nothing else. */
export const CREDIT =
  /^(?:(?:produced|presented|hosted|written|directed|edited|recorded|translated|transcribed|transcription|mixed|designed|illustrated|photographed|(?:photo|photograph|picture|image|illustration|drawing|music|sound|words|text|story|subtitle|caption|translation|interview|painting|artwork)s?(?: and (?:photo|photograph|picture|image|music|sound|word|text)s?)?)(?: and (?:produced|presented|written|edited|recorded|directed))? by\b|(?:photo|photograph|picture|image|illustration|credit|source|bild|foto|fotos|text|quelle|crédits?|photos?|crédit photo|fuente|fotografía|fonte|fotografia)s? ?[:©]\s*\S|(?:untertitel|übersetzung|redaktion|aufgezeichnet|text und fotos?|musik) (?:von|im auftrag)\b|(?:propos recueillis|sous-titres?|texte|photos?|réalisation|traduit) (?:par|de|et) ?|(?:subtítulos|traducción|texto|fotos?|música) (?:de|por)\b|(?:legendas|tradução) (?:de|por)\b|by \p{L}\S*(?: \p{L}\S*){1,3}$)/iu;

/** The line below a picture. */
export const CAPTION =
  /^(?:photo(?:graph)?s?|pictures?|images?|paintings?|drawings?|fotos?|bilder|aufnahme|photos?|peintures?|imágenes|pinturas?|imagens) (?:of|von|des?|du)\s[^.!?]+$|^(?:figure|fig\.?|table|plate|photo|image|abbildung|abb\.?|tabelle|bild|foto|tableau|figura|imagen|tabla|imagem|tabela)\s?\d+(?:\.\d+)?\s?[.:–—-]|^(?:example|exemple|beispiel|ejemplo|exemplo|listing)\s\d+\.\d+\.?\s[^.!?]+$/iu;

/** Links to other pages, each in square brackets, and nothing else. */
export const LINKS_ALONE = /^(?:\[[^[\]]{1,60}\]\s*){2,}$/u;

/** What a page says around its text, a line each. */
export const AROUND =
  /^(?:skip to (?:main )?content|share(?: this)?(?: (?:article|post|page))?|print(?: this)?(?: page)?|e-?mail this|read (?:more|next|on)|continue reading|next (?:article|post|page)|previous (?:article|post|page)|back to (?:the )?top|top of page|subscribe(?: now| here| to (?:our|the) newsletter)?|sign (?:in|up|out)|log ?(?:in|out)|menu|search|home|leave a (?:comment|reply)|\d+ comments?|\d+ min(?:utes?)?(?: read)?|advertisement|sponsored|cookie (?:settings|policy)|privacy policy|accept (?:all )?cookies|zum inhalt(?: springen)?|teilen|drucken|weiterlesen|nach oben|anmelden|suche|startseite|kommentare|werbung|anzeige|datenschutz|aller au contenu|partager|imprimer|lire (?:la suite|aussi)|haut de page|s’abonner|se connecter|recherche|accueil|publicité|ir al contenido|compartir|imprimir|leer más|volver arriba|buscar|inicio|publicidad|ir para o conteúdo|compartilhar|partilhar|leia mais|ler mais|voltar ao topo|início|publicidade)[.…»›→>]*$/iu;

/** What is heard and not said, in brackets. */
const HEARD =
  'applause|applauds?|clapping|laughter|laughs?|laughing|chuckles?|giggles?|cheers?|cheering|sighs?|coughs?|gasps?|music|music playing|music fades|intro music|theme music|silence|pause|long pause|inaudible|indistinct|unintelligible|crosstalk|bell rings?|phone rings?|door (?:opens|closes)|audience (?:laughs|applauds|member)|off mic|beifall|applaus|gelächter|lachen|lacht|musik|unverständlich|schweigen|rires?|applaudissements|musique|inaudible|silence|risas?|aplausos|música|inaudible|risos|inaudível|pausa';
export const STAGE_MARK = new RegExp(
  String.raw`[[(](?:\p{L}+ (?:and|und|et|y|e) )?(?:${HEARD})(?:[ ,](?:and |und |et |y |e )?(?:${HEARD}))*(?: \d{1,2}:\d{2}(?::\d{2})?)?\.?[\])]`,
  'giu',
);

/** A number of a footnote, or what asks for one. */
export const REFERENCE_MARK =
  /\[(?:\d{1,3}(?:\s?[,–-]\s?\d{1,3})*|\^[^\]\s]{1,20}|[a-z]|(?:p|pp|page|S|Seite|pág)\.? ?\d{1,4}|note \d{1,3}|citation needed|when\?|who\?|clarification needed|nachweis fehlt|réf\. nécessaire|cita requerida)\]|(?<=[\p{L}.,;:!?”"’)»])[¹²³⁰-⁹]{1,4}(?![\p{L}\p{N}])/giu;

/** Where words were taken from, or where more is said: “[Letters, pp. 12–14]”, “(Brook et al., 1998)”, “[Op. cit.]”, “(see Knots of the North)”. */
export const CITATION =
  /\[(?:[Oo]p\.? ?[Cc]it|[Ii]bid|[Ll]oc\.? ?[Cc]it|[^[\]\n]{2,120}(?<!\p{L})(?:pp?|S|Seiten?|págs?)\. ?\d)[^[\]\n]{0,160}\]|\([^()\n]{0,160}(?<!\p{L})(?:pp?|S)\. ?\d{1,4}[^()\n]{0,40}\)|\((?:(?:see|cf\.|vgl\.|voir|véase|ver) )?\p{Lu}[^()\n]{1,60},? (?:1[5-9]|20)\d\d[a-z]?[,:] ?(?:(?:pp?|S)\. ?)?\d{1,4}(?:[–-]\d{1,4})?\)|\(\p{Lu}[^()\n]{1,40} et al\.,? (?:1[5-9]|20)\d\d[a-z]?\)|\((?:[Ss]ee|[Ss]iehe|[Vv]oir|[Vv]éase|[Cc]f\.|[Vv]gl\.)(?: (?:also|auch|aussi|también))? (?:(?:the )?(?:section|chapter|figure|table|page)|(?:den )?(?:abschnitt|kapitel)|(?:la )?section|(?:la )?sección|[“”„»«"\p{Lu}\p{N}§])[^()\n]{0,120}(?:\([^()\n]{1,20}\)[^()\n]{0,20})?\)/gu;

/** What leads to the pages around: “‹ Back to the contents”, “Next: Knots ›”. */
export const ARROWED = /^[‹←⟵⇐]|[›→⟶⇒]$/u;

/** What a page puts behind its headings, to edit them or to point to them. */
export const EDIT_MARK =
  /\s?¶\s*$|\s?\[(?:edit(?: source)?|bearbeiten(?: \| quelltext bearbeiten)?|modifier(?: \| modifier le code)?|editar(?: código(?:-fonte)?)?)\]/giu;

/** Words that close a letter, before a name. */
export const CLOSING =
  /^(?:yours (?:sincerely|faithfully|truly|ever)|sincerely|(?:kind |best |warm |with best )?regards|(?:best|warm|all good) wishes|all the best|with love|cheers|love|(?:mit )?(?:freundlichen|besten|herzlichen|lieben|vielen)n? grüßen|(?:herzliche|liebe|beste|viele) grüße|cordialement|bien à vous|amicalement|amitiés|sincères salutations|atentamente|un (?:cordial )?saludo|saludos|un abrazo|atenciosamente|cumprimentos|abraços?|um abraço)\s?[,.!]?(?:\s+\p{Lu}[\p{L}.'’ -]{1,40})?$/iu;

/** What a subtitle holds in square brackets, by nobody said. */
export const HEARD_IN_BRACKETS = /\[[^\]\n]{1,60}\]/gu;

/** Music, with what is sung between its signs. */
export const MUSIC = /♪[^♪]*♪?|[♩♫♬]+/gu;
