-- A general-purpose editor of its own speaks with kasuri-cli lsp: typing, completing, fixing, renaming, formatting.
-- nvim --headless -u NONE -i NONE -n -c "luafile editor.lua", with KASURI_CLI; the last line says "good", or what is not.
local function must(what, condition)
  if not condition then
    io.stderr:write("not so: " .. what .. "\n")
    for _, line in ipairs(vim.api.nvim_buf_get_lines(0, 0, -1, false)) do io.stderr:write("  | " .. line .. "\n") end
    for _, d in ipairs(vim.diagnostic.get(0)) do io.stderr:write("  fault: " .. d.message .. "\n") end
    vim.cmd("cquit 1")
  end
end
local function wait(what, condition) must(what, vim.wait(10000, condition, 10)) end
local function keys(typed)
  vim.api.nvim_feedkeys(vim.api.nvim_replace_termcodes(typed, true, false, true), "xt", false)
end
local function text() return table.concat(vim.api.nvim_buf_get_lines(0, 0, -1, false), "\n") end

vim.cmd("edit " .. vim.fn.tempname() .. "-dusk.kasuri")
local client = vim.lsp.start_client({ name = "kasuri", cmd = { os.getenv("KASURI_CLI"), "lsp" }, root_dir = "/" })
must("the server starts", client ~= nil)
vim.lsp.buf_attach_client(0, client)
wait("it says what it can", function()
  local it = vim.lsp.get_client_by_id(client)
  return it and it.initialized
end)
local function ask(method, params)
  local answers = vim.lsp.buf_request_sync(0, method, params, 10000)
  must(method .. " is answered", answers and answers[client] and not answers[client].err)
  return answers[client].result
end
local function here() return vim.lsp.util.make_position_params(0, vim.lsp.get_client_by_id(client).offset_encoding) end

-- Typing, with a letter that counts two in UTF-16, and a fault.
keys('inote "by \u{1F3EE} light"<CR>param meet = 0.5 in 0 .. 1<CR>out.rgb = mix(rgb, rgb.gbr, meet)<CR>out.r = lumminance(rgb)<Esc>')
wait("the fault is told", function() return #vim.diagnostic.get(0) == 1 end)
local fault = vim.diagnostic.get(0)[1]
must("it stands where it is", fault.lnum == 3 and fault.col == 8 and fault.end_col == 18)

-- Its fix.
local params = vim.lsp.util.make_given_range_params({ 4, 0 }, { 4, 20 }, 0, "utf-16")
params.context = { diagnostics = {} }
local actions = ask("textDocument/codeAction", params)
must("there is a fix", #actions >= 1)
vim.lsp.util.apply_workspace_edit(actions[1].edit, "utf-16")
must("it was applied", text():find("out.r = luminance(rgb)", 1, true))
wait("the fault is gone", function() return #vim.diagnostic.get(0) == 0 end)

-- Completion behind what was typed on the line with the lantern's successor.
keys("Golet warm = oklch(rgb).<Esc>")
vim.api.nvim_win_set_cursor(0, { 5, 23 })
local params_at = here()
params_at.position.character = 23
local found = ask("textDocument/completion", params_at)
local names = {}
for _, item in ipairs(found.items) do names[item.label] = true end
must("components are offered", names.l and names.c and names.h)
keys("Al<Esc>")
vim.bo.omnifunc = "v:lua.vim.lsp.omnifunc"

-- Another name, behind the lantern and in two lines.
vim.api.nvim_win_set_cursor(0, { 2, 7 })
vim.lsp.buf.rename("far")
wait("it is called far everywhere", function()
  return text():find("param far = 0.5", 1, true) and text():find("rgb.gbr, far)", 1, true)
end)
must("nothing else was touched", text():find("by \u{1F3EE} light", 1, true) and not text():find("meet", 1, true))

-- Where it comes from, what it is.
vim.api.nvim_win_set_cursor(0, { 3, 29 })
must("its definition", ask("textDocument/definition", here()).range.start.line == 1)
must("what it is", ask("textDocument/hover", here()).contents.value:find("far"))

-- The canonical form.
vim.api.nvim_buf_set_lines(0, 2, 3, false, { "out.rgb=mix( rgb,rgb.gbr,far )" })
vim.lsp.buf.formatting_sync(nil, 10000)
must("it is formatted", text():find("out.rgb = mix(rgb, rgb.gbr, far)", 1, true))

-- Proofs, off the typing path.
keys('Goproof "greys stay grey" : neutral<Esc>')
wait("the proof is told", function()
  local lenses = ask("textDocument/codeLens", { textDocument = vim.lsp.util.make_text_document_params() })
  return lenses[1] and (lenses[1].command.title:find("holds") or lenses[1].command.title:find("proved") or lenses[1].command.title:find("bounded"))
end)

vim.lsp.stop_client(client)
wait("it ends", function() return vim.lsp.client_is_stopped(client) end)
io.stderr:write("good\n")
vim.cmd("qall!")
