# Reads a JSON list of pieces of Ruby and prints what each does with several sets of values for its free names.
require "json"

def hashed(text)
  text.each_char.reduce(7) { |h, char| (h * 31 + char.ord) & 0xffffffff }
end

PLAIN = [nil, false, 0, "", 7, "text", :open, [], [1, 2], { a: 1 }].freeze

# Answers every message with a value of its own, and logs those with arguments.
class Thing
  def initialize(path, seed, log)
    @path = path
    @seed = seed
    @log = log
    @own = {}
  end

  def method_missing(name, *args)
    return @own[name.to_s.chomp("=")] = args[0] if name.to_s.end_with?("=")

    @log << "#{@path}.#{name}(#{args.map(&:inspect).join(',')})" unless args.empty?
    key = "#{name}#{args.inspect}"
    @own.key?(key) ? @own[key] : @own[key] = sample("#{@path}.#{name}", @seed, @log)
  end

  def respond_to_missing?(name, _all = false)
    !name.to_s.start_with?("to_")
  end

  def inspect
    "<#{@path}>"
  end
  alias to_s inspect
end

def sample(path, seed, log)
  pick = hashed("#{path} #{seed}") % 15
  return Thing.new(path, seed, log) if pick >= PLAIN.length || path.count(".") > 3

  PLAIN[pick].frozen? ? PLAIN[pick] : PLAIN[pick].dup
end

def scene(seed, log)
  Class.new do
    define_method(:method_missing) do |name, *args|
      @names ||= {}
      log << "#{name}(#{args.map(&:inspect).join(',')})" unless args.empty?
      key = "#{name}#{args.inspect}"
      @names.key?(key) ? @names[key] : @names[key] = sample(name.to_s, seed, log)
    end
    define_method(:respond_to_missing?) { |_name, _all = false| true }
    define_method(:here) { binding }
  end
end

def once(code, seed)
  log = []
  scene = scene(seed, log)
  object = scene.new
  code.scan(/@\w+/).uniq.each do |name|
    object.instance_variable_set(name, sample("at#{name}", seed, log)) if name !~ /^@@/
  end
  before = object.instance_variables.to_h { |name| [name, object.instance_variable_get(name).inspect] }
  here = object.here
  begin
    given = here.eval(code).inspect
    # What a class comes to is the name of its last method, however that is made.
    log << "gives #{given}" unless code.match?(/^\s*(class|module|def)\b/)
    (scene.instance_methods(false) - %i[here method_missing respond_to_missing?]).sort.each do |name|
      count = scene.instance_method(name).arity.abs
      log << "#{name}=#{object.send(name, *(1..count).map { |i| sample("argument#{i}", seed, log) }).inspect}"
    end
  rescue StandardError, SyntaxError => e
    log << "throws #{e.class}"
  end
  here.local_variables.sort.each { |name| log << "#{name}:#{here.local_variable_get(name).inspect}" }
  object.instance_variables.sort.each do |name|
    value = object.instance_variable_get(name).inspect
    log << "#{name}:#{value}" if name != :@names && before[name] != value
  end
  log.join("|").gsub(/0x\h+/, "")
end

print JSON.generate(JSON.parse($stdin.read).map { |code| (0...40).map { |seed| once(code, seed) }.join("\n") })
