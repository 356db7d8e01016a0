// The box in space: turned by hand and folded by a slider. Every pose comes
// from the server; this goes smoothly from one to the next and draws.
import * as THREE from "./vendor/three.module.min.js";

const box = document.getElementById("space");
const canvas = document.getElementById("space-canvas");
const slider = document.getElementById("fold-at");
const still = matchMedia("(prefers-reduced-motion: reduce)").matches;

let renderer;
try {
  renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true, preserveDrawingBuffer: true });
} catch {
  renderer = null; // without WebGL the drawings below tell the same
}
if (!renderer) box.classList.add("none");
else start(await (await fetch(box.dataset.motion)).json());

function start(motion) {
  box.hidden = false;
  const scene = new THREE.Scene();
  const camera = new THREE.PerspectiveCamera(30, 1, motion.reach * 0.2, motion.reach * 20);
  scene.add(new THREE.HemisphereLight(0xffffff, 0xe8dcc8, 2.8));
  const lamp = new THREE.DirectionalLight(0xffffff, 1.6);
  lamp.position.set(-0.6, -1, 1.4);
  scene.add(lamp);

  const ink = new THREE.LineBasicMaterial({ color: 0x2b2530 });
  const faint = new THREE.LineBasicMaterial({ color: 0x2b2530, transparent: true, opacity: 0.45 });
  // One material for each side of a paper; a printed one is drawn once and then
  // repeated.
  const papers = motion.papers.map(({ outside, inside, tile }) => {
    const material = (color, side) => new THREE.MeshStandardMaterial({ color, side, roughness: 0.9 });
    const front = material(outside, THREE.FrontSide);
    const within = material(outside, THREE.BackSide); // the same paper, glued inside
    const both = material(outside, THREE.DoubleSide); // and laid round the box
    if (tile) {
      const picture = new Image();
      picture.onload = () => {
        const drawn = document.createElement("canvas");
        drawn.width = drawn.height = 512;
        drawn.getContext("2d").drawImage(picture, 0, 0, 512, 512);
        const repeat = new THREE.CanvasTexture(drawn);
        repeat.wrapS = repeat.wrapT = THREE.RepeatWrapping;
        repeat.colorSpace = THREE.SRGBColorSpace;
        repeat.anisotropy = renderer.capabilities.getMaxAnisotropy();
        for (const side of [front, within, both]) {
          side.map = repeat;
          side.color.set(0xffffff);
          side.needsUpdate = true;
        }
        redraw();
      };
      picture.src = tile;
    }
    return { front, within, both, back: material(inside, THREE.BackSide) };
  });
  // The print of a paper lies on a flat shape as the map says: a point of it goes
  // to repeats of the print, of which v counts upwards.
  function printed(geometry, [a, b, c, d, e, f]) {
    const at = geometry.attributes.position;
    const uv = new Float32Array(at.count * 2);
    for (let i = 0; i < at.count; i++) {
      const x = at.getX(i);
      const y = -at.getY(i);
      uv[2 * i] = a * x + c * y + e;
      uv[2 * i + 1] = 1 - (b * x + d * y + f);
    }
    geometry.setAttribute("uv", new THREE.BufferAttribute(uv, 2));
    return geometry;
  }

  const edge = new THREE.MeshStandardMaterial({ color: 0xefe6d6, side: THREE.DoubleSide, roughness: 1 });
  // The cut edge of a piece of card all round.
  function rim(outline, half) {
    const at = [];
    outline.forEach(([x, y], i) => {
      const [u, v] = outline[(i + 1) % outline.length];
      at.push(x, -y, half, x, -y, -half, u, -v, half, u, -v, half, x, -y, -half, u, -v, -half);
    });
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute("position", new THREE.Float32BufferAttribute(at, 3));
    geometry.computeVertexNormals();
    return geometry;
  }

  const shape = (points) => new THREE.Shape(points.map(([x, y]) => new THREE.Vector2(x, -y)));
  const faces = motion.pieces.flatMap((piece) =>
    piece.faces.map((face, i) => {
      const group = new THREE.Group();
      const flat = shape(face.outline);
      flat.holes = face.holes.map(shape);
      // Card has its thickness, half of it on either side of the fold.
      const half = piece.card / 2;
      const top = new THREE.Mesh(printed(new THREE.ShapeGeometry(flat), piece.tile), papers[piece.paper].front);
      const back = new THREE.Mesh(new THREE.ShapeGeometry(flat), papers[piece.paper].back);
      top.position.z = half;
      back.position.z = -half;
      group.add(top, back, new THREE.Mesh(rim(face.outline, half), edge));
      for (const side of [half, -half]) {
        const at = face.outline.map(([x, y]) => new THREE.Vector3(x, -y, side));
        if (face.edges) { // a bend goes on over its other edges
          const ends = face.edges.flatMap((i) => [at[i], at[(i + 1) % at.length]]);
          group.add(new THREE.LineSegments(new THREE.BufferGeometry().setFromPoints(ends), ink));
          continue;
        }
        group.add(new THREE.LineLoop(new THREE.BufferGeometry().setFromPoints(at), ink));
      }
      for (const m of face.mats) {
        const { front, within } = papers[m.paper];
        const paper = shape(m.outline);
        paper.holes = (m.holes || []).map(shape); // windows are cut through it
        const mesh = new THREE.Mesh(printed(new THREE.ShapeGeometry(paper), m.tile), m.inside ? within : front);
        const off = half + Math.max(0.12, m.lift);
        mesh.position.z = m.inside ? -off : off;
        group.add(mesh);
        group.add(new THREE.LineLoop(new THREE.BufferGeometry().setFromPoints(m.outline.map(([x, y]) => new THREE.Vector3(x, -y, mesh.position.z))), faint));
      }
      for (const part of group.children) part.position.z += face.lift;
      scene.add(group);
      for (const mesh of [top, ...group.children.filter((part) => part.isMesh)]) mesh.userData = { piece: piece.id, face: face.name, words: face.words, where: piece.name };
      return { group, poses: piece.poses.map((frame) => frame[i]) };
    }),
  );

  // What lies on the shut box: bands, ribbons.
  const lying = new THREE.Group();
  for (const plate of motion.lying) {
    const at = plate.corners.map((c) => new THREE.Vector3(...c));
    const geometry = new THREE.BufferGeometry().setFromPoints(at.slice(1, -1).flatMap((_, i) => [at[0], at[i + 2], at[i + 1]]));
    geometry.computeVertexNormals();
    const along = at[1].clone().sub(at[0]).normalize();
    const over = at[at.length - 1].clone().sub(at[0]).normalize();
    const p = geometry.attributes.position;
    const uv = [];
    for (let i = 0; i < p.count; i++) {
      const d = new THREE.Vector3().fromBufferAttribute(p, i).sub(at[0]);
      uv.push(d.dot(along) / plate.tile, -d.dot(over) / plate.tile);
    }
    geometry.setAttribute("uv", new THREE.Float32BufferAttribute(uv, 2));
    lying.add(new THREE.Mesh(geometry, papers[plate.paper].both));
    lying.add(new THREE.LineLoop(new THREE.BufferGeometry().setFromPoints(at), faint));
  }
  scene.add(lying);

  let goods = null;
  if (motion.contents) {
    goods = new THREE.Mesh(new THREE.BoxGeometry(...motion.contents.sides), new THREE.MeshStandardMaterial({ color: 0x7a8f6a, roughness: 1 }));
    goods.position.set(...motion.contents.middle);
    scene.add(goods);
  }
  const carrying = () => motion.pieces.slice(0, motion.contents.piece).reduce((n, p) => n + p.faces.length, motion.contents.face);

  const last = motion.stages.length * motion.frames;
  const a = new THREE.Quaternion();
  const b = new THREE.Quaternion();
  function fold(at) {
    const f = Math.min(last, Math.max(0, at * last));
    const i = Math.min(last - 1, Math.floor(f));
    const t = f - i;
    for (const { group, poses } of faces) {
      const p = poses[i];
      const q = poses[i + 1];
      a.set(p[0], p[1], p[2], p[3]);
      b.set(q[0], q[1], q[2], q[3]);
      group.quaternion.slerpQuaternions(a, b, t);
      group.position.set(p[4] + (q[4] - p[4]) * t, p[5] + (q[5] - p[5]) * t, p[6] + (q[6] - p[6]) * t);
    }
    lying.visible = f >= last;
    if (goods) goods.visible = f >= motion.open;
    const stage = Math.min(motion.stages.length - 1, Math.floor(f / motion.frames));
    const opens = motion.open < last;
    const stands = { 0: "flat", [last]: opens ? "shut" : "made", [opens ? motion.open : last]: opens ? "open" : "made" };
    document.getElementById("fold-stage").textContent = stands[f] ?? motion.stages[stage];
    const open = motion.residual[Math.round(f)];
    document.getElementById("fold-residual").textContent = open > 0.05 ? `In between, this card has to bend by ${open.toFixed(1)} mm.` : "";
  }

  // The viewer steps back for the flat card and comes near the finished box.
  const view = { around: 0.55, up: 0.5, near: 1 };
  function draw() {
    const w = canvas.clientWidth;
    const h = canvas.clientHeight;
    renderer.setPixelRatio(Math.min(2, devicePixelRatio));
    renderer.setSize(w, h, false);
    camera.aspect = w / h;
    camera.updateProjectionMatrix();
    // From the last stage but one it comes nearer, until the box is shut.
    const stages = motion.stages.length;
    const done = Math.max(0, (slider.valueAsNumber / 100) * stages - Math.max(0, stages - 2)) / Math.min(2, stages);
    const far = view.near * 3.1 * (motion.reach + (motion.shut - motion.reach) * done) * Math.max(1, (1.3 * h) / w); // the whole of it, on an upright screen too
    const level = Math.cos(view.up) * far;
    camera.up.set(0, 0, 1);
    camera.position.set(Math.sin(view.around) * level, -Math.cos(view.around) * level, Math.sin(view.up) * far + motion.height / 2);
    camera.lookAt(0, 0, motion.height / 2);
    renderer.render(scene, camera);
  }

  let waiting = false;
  function redraw() {
    if (waiting) return;
    waiting = true;
    requestAnimationFrame(() => {
      waiting = false;
      draw();
    });
  }
  function turn(around, up, nearer = 1) {
    view.around -= around;
    view.up = Math.min(1.5, Math.max(-1.5, view.up + up));
    view.near = Math.min(4, Math.max(0.4, view.near * nearer));
    redraw();
  }
  function set(at) {
    slider.value = String(at * 100);
    fold(at);
    redraw();
  }

  slider.addEventListener("input", () => set(slider.valueAsNumber / 100));
  addEventListener("resize", redraw);
  canvas.addEventListener("wheel", (e) => { e.preventDefault(); turn(0, 0, e.deltaY > 0 ? 1.08 : 0.92); }, { passive: false });
  canvas.addEventListener("keydown", (e) => {
    const step = { ArrowLeft: [-0.12, 0], ArrowRight: [0.12, 0], ArrowUp: [0, 0.12], ArrowDown: [0, -0.12], "+": [0, 0, 0.9], "-": [0, 0, 1.1] }[e.key];
    if (!step) return;
    e.preventDefault();
    turn(...step);
  });
  // A face that is pressed, not dragged, can be given a paper.
  const ray = new THREE.Raycaster();
  const asking = document.getElementById("dress-face");
  function pick(e) {
    const b = canvas.getBoundingClientRect();
    ray.setFromCamera(new THREE.Vector2(((e.clientX - b.left) / b.width) * 2 - 1, 1 - ((e.clientY - b.top) / b.height) * 2), camera);
    const hit = ray.intersectObjects(scene.children, true).find((h) => h.object.isMesh && h.object.userData.face);
    asking.hidden = !hit || !hit.object.userData.words;
    if (asking.hidden) return;
    const { piece, face, words, where } = hit.object.userData;
    document.getElementById("dress-face-words").textContent = `The ${words} of the ${where.toLowerCase()}:`;
    document.getElementById("dress-face-name").value = face;
    document.getElementById("dress-face-piece").value = piece;
  }
  let pressed = null;
  canvas.addEventListener("pointerdown", (e) => { pressed = [e.clientX, e.clientY]; });
  canvas.addEventListener("pointerup", (e) => {
    if (pressed && Math.hypot(e.clientX - pressed[0], e.clientY - pressed[1]) < 4) pick(e);
    pressed = null;
  });
  const fingers = new Map();
  canvas.addEventListener("pointerdown", (e) => { fingers.set(e.pointerId, [e.clientX, e.clientY]); canvas.setPointerCapture(e.pointerId); });
  canvas.addEventListener("pointermove", (e) => {
    const from = fingers.get(e.pointerId);
    if (!from) return;
    if (fingers.size === 1) turn((e.clientX - from[0]) / 150, (e.clientY - from[1]) / 150);
    else {
      const [[ox, oy]] = [...fingers].filter(([id]) => id !== e.pointerId).map(([, at]) => at);
      const was = Math.hypot(from[0] - ox, from[1] - oy);
      turn(0, 0, was / Math.max(1, Math.hypot(e.clientX - ox, e.clientY - oy)));
    }
    fingers.set(e.pointerId, [e.clientX, e.clientY]);
  });
  for (const end of ["pointerup", "pointercancel"]) canvas.addEventListener(end, (e) => fingers.delete(e.pointerId));

  for (const button of document.querySelectorAll("[data-fold-to]")) {
    button.addEventListener("click", () => set(button.dataset.foldTo === "open" ? motion.open / last : Number(button.dataset.foldTo)));
  }
  document.getElementById("fold-play").addEventListener("click", () => {
    if (still) return set(slider.valueAsNumber < 100 ? 1 : 0);
    const began = performance.now();
    const long = 1300 * motion.stages.length;
    const step = (now) => {
      set(Math.min(1, (now - began) / long));
      if (now - began < long) requestAnimationFrame(step);
    };
    requestAnimationFrame(step);
  });

  set(1);
  if (goods) faces[carrying()].group.attach(goods); // it goes with the floor it stands on
  box.dataset.ready = "yes";
}
