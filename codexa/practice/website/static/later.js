// A website that builds its pages by a script: the places come first, the script of the forms last, and some more later.
const template = document.getElementById("later");
const { forms } = document.currentScript.dataset;
const pieces = [...template.content.children];
setTimeout(() => {
  template.before(...pieces.slice(0, 2));
  const script = document.createElement("script");
  script.src = `${forms}/embed/1.js`;
  document.head.append(script);
}, 200);
setTimeout(() => template.before(...pieces.slice(2)), 900);
