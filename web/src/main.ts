import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/atkinson-hyperlegible-mono";
import "./tokens.css";
import "./base.css";

import { mount } from "svelte";

import App from "./App.svelte";

import { workOffline } from "./offline/register";

const target = document.getElementById("app");
if (!target) throw new Error("no element to mount on");

workOffline();

export default mount(App, { target });
