/**
 * What holds in running text before any style of the document. What words mean is seen as the document shows it: browsers have
 * looks of their own for elements, and marks around quotations that stand in the text already.
 */
export const BASE_CSS = `body {
  margin: 0 auto;
  padding: 0 1em;
  max-width: 40em;
}
h1, h2, h3, h4, h5, h6, p, li, figcaption, blockquote, pre {
  margin: 0;
}
blockquote, aside {
  margin: 1em 0;
}
aside.box {
  margin: 1em 0;
  padding: 0 1em;
  border-left: 2px solid;
}
img {
  max-width: 100%;
  height: auto;
}
img.in-line {
  width: auto;
  height: 1.2em;
  vertical-align: middle;
}
figure {
  margin: 1em auto;
  text-align: center;
  break-inside: avoid;
}
figure img,
figure video,
figure audio {
  width: 100%;
}
.floats {
  float: right;
  max-width: 45%;
  margin: 0.3em 0 0.6em 1em;
}
table {
  border-collapse: collapse;
  margin: 1em 0;
}
th, td {
  font-weight: inherit;
  text-align: left;
  vertical-align: top;
}
em, cite, dfn {
  font-style: inherit;
}
strong {
  font-weight: inherit;
}
small, sub, sup {
  font-size: inherit;
  vertical-align: baseline;
}
q::before, q::after {
  content: none;
}
ul.no-bullets {
  padding-left: 0;
  list-style: none;
}
a {
  color: inherit;
}
a.note-reference {
  vertical-align: super;
  font-size: 0.7em;
  line-height: 0;
}
aside.note {
  margin: 0.5em 0;
  font-size: 0.9em;
}
ruby rt {
  font-size: 0.5em;
}
`;
